/** How strongly steps are damped, as a share of the diagonal, and how much more after the next one that leads nowhere. */
export interface Damping {
  readonly share: number;
  readonly growth: number;
}

const GROWTH = 4;
/** How much faster damping grows with every further step that leads nowhere. */
const HASTE = 2;
const [LEAST, MOST] = [1e-12, 1e12];
/** Where nothing more is damped, the first step that cannot be solved is damped by this. */
const NOTICEABLE = 1e-8;

export const beginDamping = (share: number): Damping => ({ share, growth: GROWTH });

/** After a step that was taken: less the nearer its gain came to what was promised, more where it gained less than half of it (Nielsen, Damping parameter in Marquardt's method, 1999). `gain` is their ratio. */
export const eased = ({ share }: Damping, gain: number): Damping =>
  beginDamping(Math.max(LEAST, share * Math.max(0.1, 1 - (2 * Math.max(0, Math.min(1, gain)) - 1) ** 3)));

/** After a step that led nowhere, or could not be solved. */
export const dampedMore = ({ share, growth }: Damping): Damping => ({
  share: Math.min(MOST, Math.max(NOTICEABLE, share * growth)),
  growth: growth * HASTE,
});
