import { useCallback } from 'react';
import { useDesk, useSession } from '@/bench/use-session';
import { FONT, usePalette } from '@/ui/palette';
import { moveCaliper, pressCaliper, useCaliper, type Reading } from './use-caliper';

const STEPS = [-1, -0.1, 0.1, 1];

/** The caliper's display; of the simulated one also its jaws and buttons. They never take the focus from the field that waits for a reading. */
export function CaliperSlip() {
  const palette = usePalette();
  const { session } = useDesk();
  const on = useSession((state) => state.caliper);
  const caliper = useCaliper(
    on,
    useCallback(() => session.say('caliper-no-field'), [session]),
  );
  if (!on) return null;
  const reading = caliper.kind === 'there' ? caliper.reading : undefined;
  return (
    <div
      role="group"
      aria-label="Caliper"
      data-testid="caliper"
      style={{
        position: 'absolute',
        right: 64,
        top: 8,
        display: 'flex',
        flexWrap: 'wrap',
        gap: 6,
        alignItems: 'center',
        maxWidth: 320,
        padding: 8,
        borderRadius: 8,
        background: palette.paper,
        border: `1px solid ${palette.rule}`,
        color: palette.ink,
        fontFamily: FONT.text,
        fontSize: 13,
      }}>
      <span>
        {caliper.kind === 'away' ? 'The caliper is away' : caliper.simulated ? 'Simulated caliper' : 'Caliper'}
      </span>
      <span data-testid="caliper-reading" style={{ fontFamily: FONT.figures, fontSize: 18 }}>
        {reading ? `${reading.text} ${reading.unit}${reading.hold ? ', held' : ''}` : '—'}
      </span>
      {reading && caliper.kind === 'there' && caliper.simulated ? <Jaws reading={reading} /> : null}
    </div>
  );
}

/** Of the simulated caliper: what a hand would do to it. */
function Jaws({ reading }: { reading: Reading }) {
  return (
    <span style={{ display: 'flex', flexWrap: 'wrap', gap: 4 }}>
      {STEPS.map((step) => (
        <SlipButton
          key={step}
          label={step > 0 ? `+${step}` : `−${-step}`}
          name={`Move the jaws by ${step} mm`}
          press={() => void moveCaliper({ mm: Math.max(0, reading.mm + step) })}
        />
      ))}
      <SlipButton
        label={reading.unit === 'mm' ? 'in' : 'mm'}
        name="Change the unit"
        press={() => void moveCaliper({ unit: reading.unit === 'mm' ? 'in' : 'mm' })}
      />
      <SlipButton
        label={reading.hold ? 'Let go' : 'Hold'}
        name="Hold the reading"
        press={() => void moveCaliper({ hold: !reading.hold })}
      />
      <SlipButton label="Send" name="Send the reading" press={() => void pressCaliper()} />
    </span>
  );
}

function SlipButton({ label, name, press }: { label: string; name: string; press: () => void }) {
  const palette = usePalette();
  return (
    <button
      aria-label={name}
      onPointerDown={(event) => event.preventDefault()}
      onMouseDown={(event) => event.preventDefault()}
      onClick={press}
      style={{
        minWidth: 44,
        height: 44,
        borderRadius: 8,
        border: `1px solid ${palette.rule}`,
        background: palette.paper,
        color: palette.ink,
        fontFamily: FONT.text,
        fontSize: 14,
      }}>
      {label}
    </button>
  );
}
