import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { median } from '../basics';
import {
  adjustEvidence,
  firstNumberOf,
  inOrder,
  OWN_PLANE,
  ratiosIn,
  toPlane,
  type Allowance,
  type MapModel,
  type Observation,
} from '../calibrate';
import { distance, type Vec } from '../geometry';
import { DIRECTIONS } from '../space';
import { readDistance, type Read } from './coordinates';
import { listTies, modelOf, type SceneStart, type Tie } from './problem';
import {
  coordinateBlock,
  directionsOf,
  isLying,
  knownOf,
  partBlock,
  type Distance,
  type SceneFeature,
  type Scene,
  type SceneView,
} from './scene';
import { ownedName } from '../adjust';
import { isUpright } from './facing';
import { LEVEL_DIRECTIONS, type ShownAxis } from './shown';

/** A view as its own evidence leaves it. */
export interface ViewBegun {
  readonly view: SceneView;
  readonly model: MapModel;
  /** Its pieces as its own fit takes them: corners in order. */
  readonly evidence: readonly Observation[];
  /** Numbers of its map. */
  readonly numbers: readonly number[];
  /** Whether a size of its own says how large things are in it; and whether its evidence says which way is up. */
  readonly isScaled: boolean;
  readonly isTurned: boolean;
  /** What its own evidence shows that was not taken for granted, named with the view. */
  readonly freed: readonly string[];
}

/** Each view by itself, as far as it can be had: where the joint adjustment begins, and what it does not have to find out once more. */
export function beginViews(views: readonly SceneView[], allowance?: Allowance): ViewBegun[] {
  const begun = new Map(
    views.filter(({ shares }) => shares === undefined).map((view) => [view.id, beginView(view, allowance)]),
  );
  return views.map((view) => levelled(begun.get(view.id) ?? beginSharing(view, begun.get(view.shares!)!)));
}

/** Turned so that its datum runs to the right; where its evidence says what is level, by a half turn or none. */
function levelled(begun: ViewBegun): ViewBegun {
  const { view, model, numbers, isTurned } = begun;
  if (!view.datum) return begun;
  const { origin, direction } = view.datum;
  const map = model.mapAt(numbers, OWN_PLANE);
  const [from, to] = [0, map.unit / 20].map((far) =>
    toPlane(map, [origin[0] + far * Math.cos(direction), origin[1] + far * Math.sin(direction)]),
  ) as [Vec, Vec];
  const askew = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const back = isTurned ? Math.PI * Math.round(askew / Math.PI) : askew;
  const turn = firstNumberOf(model, 'turn');
  return { ...begun, numbers: numbers.with(turn, numbers[turn]! - back) };
}

/** As large, and as slanted, as the one whose map it shares. */
function beginSharing(view: SceneView, { model, numbers, isScaled }: ViewBegun): ViewBegun {
  const own = modelOf(view);
  return {
    view,
    model: own,
    evidence: view.evidence,
    numbers: own.parts.flatMap(({ id, start }) =>
      isLying(id) ? start : numbers.slice(firstNumberOf(model, id)).slice(0, start.length),
    ),
    isScaled,
    isTurned: false,
    freed: [],
  };
}

function beginView(view: SceneView, allowance: Allowance | undefined): ViewBegun {
  const model = modelOf(view);
  const bare = model.parts.flatMap(({ start }) => start);
  const own = adjustEvidence({ ...view, allowance });
  const turned = view.evidence.some(({ kind, check }) => !check && (kind === 'level' || kind === 'known-point'));
  if (!own.ok) {
    const evidence = view.evidence.map((piece) => inOrder(piece, view.points));
    const map = model.mapAt(bare, OWN_PLANE);
    const ratios = ratiosIn(evidence, (name) => toPlane(map, view.points[name]!.at)).filter(Number.isFinite);
    const scale = firstNumberOf(model, 'scale');
    const numbers = ratios.length > 0 ? bare.with(scale, bare[scale]! + Math.log(median(ratios))) : bare;
    return { view, model, evidence, numbers, isScaled: ratios.length > 0, isTurned: false, freed: [] };
  }
  const { parts, taken } = own.value;
  return {
    view,
    model,
    evidence: view.evidence.map((piece) => taken.get(piece.id) ?? piece),
    numbers: model.parts.flatMap(({ id, start }) => parts.find(({ part }) => part === id)?.values ?? start),
    isScaled: true,
    isTurned: turned,
    freed: parts.filter(({ from }) => from === 'overruled').map(({ part }) => partBlock(view, part)),
  };
}

/** How firmly a view stays as large, and as turned, as its own evidence left it, beside a tie of one; where there is none, as it lies. */
const FIRM = 10;
const LOOSE = 0.03;
const HINT = 1e-3;
/** Keeps what nothing speaks of where it is: a share of what is said of each number, for one measure for all would draw places of large coordinates to nothing, and their views with them. */
const RIDGE = 1e-10;

interface Equation {
  readonly terms: readonly (readonly [string, number])[];
  readonly right: number;
}

/**
 * Numbers to begin a joint adjustment at, by least squares that are linear: each view is one of its own, grown, turned and shifted (four numbers), so that what it shows lies where the coordinates say. First by
 * what the views share alone, which tells how they lie to each other; then with what is known of coordinates and apart, whose signs show by then. Weak: views lie about as they are turned on their sheets, unless what
 * they share says otherwise clearly.
 */
export function startOfScene(scene: Scene, begun: readonly ViewBegun[]): SceneStart {
  const first = placedTogether(scene, begun, [], HINT, new Map());
  const isScaled = begun.some((view) => view.isScaled);
  const ratio = isScaled ? 1 : (ratioOf(scene, first.coordinates) ?? 1);
  const grown: SceneStart = {
    maps: new Map(
      begun.map(({ view, model }) => [view.id, similar(model, first.maps.get(view.id)!, [ratio, 0, 0, 0])]),
    ),
    coordinates: new Map([...first.coordinates].map(([id, value]) => [id, value * ratio])),
  };
  const again = begun.map((view) => ({ ...view, numbers: grown.maps.get(view.view.id)!, isScaled: true }));
  return placedTogether(scene, again, toldOf(scene, grown.coordinates), LOOSE, grown.coordinates);
}

const turnedBy = (view: string) => ['a', 'b', 'x', 'y'].map((name) => ownedName(view, name));

type Coordinates = SceneStart['coordinates'];

/** Solves what is shared and what is told; how edges run that views stand on is not linear in where they begin and end: it is as it was found, once more where that was not known yet. */
function placedTogether(
  scene: Scene,
  begun: readonly ViewBegun[],
  told: readonly Equation[],
  hint: number,
  now: Coordinates,
): SceneStart {
  const first = placed(scene, begun, [...shareOnly(scene, begun, now), ...told], hint);
  if (!scene.views.some(({ side }) => isUpright(side))) return first;
  return placed(scene, begun, [...shareOnly(scene, begun, first.coordinates), ...told], hint);
}

/** That places lie where the coordinates of what they show are. */
function shareOnly({ features }: Scene, begun: readonly ViewBegun[], now: Coordinates): Equation[] {
  return begun.flatMap(({ view, model, numbers }) => {
    const map = model.mapAt(numbers, OWN_PLANE);
    return listTies(view, features).flatMap((tie) =>
      tieEquations(tie, view.id, toPlane(map, view.points[tie.point]!.at), now),
    );
  });
}

function tieEquations({ feature, shows }: Tie, view: string, [u, v]: Vec, now: Coordinates): Equation[] {
  const [a, b, x, y] = turnedBy(view) as [string, string, string, string];
  return shows.flatMap((shown): Equation[] => {
    const coordinate = termsOf(feature, shown, now);
    if (!coordinate) return [];
    const place: Equation['terms'] =
      shown.axis === 0
        ? [
            [a, u],
            [b, -v],
            [x, 1],
          ]
        : [
            [a, v],
            [b, u],
            [y, 1],
          ];
    return [{ terms: [...place, ...coordinate.map(([name, factor]) => [name, -factor] as const)], right: 0 }];
  });
}

/** Where a feature lies on an axis of a view, of coordinates; along an edge undefined while nothing tells how that runs. */
function termsOf(feature: SceneFeature, shown: ShownAxis, now: Coordinates): Equation['terms'] | undefined {
  if ('direction' in shown) return [[blockOf(feature, shown.direction), shown.sign]];
  const [from, to] = shown.edge;
  const way = LEVEL_DIRECTIONS.map(
    (direction) => (now.get(blockOf(to, direction)) ?? NaN) - (now.get(blockOf(from, direction)) ?? NaN),
  );
  const length = Math.hypot(...way);
  if (!(length > 0)) return undefined;
  return LEVEL_DIRECTIONS.flatMap((direction, i) => [
    [blockOf(feature, direction), way[i]! / length] as const,
    [blockOf(from, direction), -way[i]! / length] as const,
  ]);
}

/** Every coordinate is sought here, the known ones too: they are told where they are. */
const blockOf = (feature: SceneFeature, direction: (typeof DIRECTIONS)[number]) => `${feature.id}:${direction}`;

/** What is known of coordinates, and how far apart they are along one direction, with the signs that they have by now. */
function toldOf(scene: Scene, now: ReadonlyMap<string, number>): Equation[] {
  const features = new Map(scene.features.map((feature) => [feature.id, feature]));
  const known = scene.features.flatMap((feature) =>
    directionsOf(feature).flatMap((direction): Equation[] => {
      const mm = knownOf(feature, direction);
      return mm === undefined ? [] : [{ terms: [[blockOf(feature, direction), FIRM]], right: FIRM * mm }];
    }),
  );
  const said = scene.evidence.flatMap((piece): Equation[] => {
    if (piece.check) return [];
    const pairs =
      piece.kind === 'same'
        ? piece.of
            .slice(1)
            .flatMap((other) => piece.along.map((along) => ({ from: piece.of[0]!, to: other, along, mm: 0 })))
        : directionOf(piece, features).map((along) => ({ ...piece, along }));
    return pairs.map(({ from, to, along, mm }) => {
      const [a, b] = [from, to].map((id) => blockOf(features.get(id)!, along)) as [string, string];
      const sign = Math.sign((now.get(b) ?? 0) - (now.get(a) ?? 0)) || 1;
      return {
        terms: [
          [b, 1],
          [a, -1],
        ],
        right: sign * mm,
      };
    });
  });
  return [...known, ...said];
}

function directionOf({ from, along }: Distance, features: ReadonlyMap<string, SceneFeature>) {
  const direction = along ?? features.get(from)!.only;
  return direction ? [direction] : [];
}

/** Solves the equations, holding each view about as it is. */
function placed(scene: Scene, begun: readonly ViewBegun[], equations: readonly Equation[], hint: number): SceneStart {
  const holding = begun.flatMap(({ view, isScaled, isTurned, model, numbers }): Equation[] => {
    const extent = extentOf(view, model, numbers);
    const [a, b] = turnedBy(view.id) as [string, string];
    const [size, turn] = [(isScaled ? FIRM : hint) * extent, (isTurned ? FIRM : LOOSE) * extent];
    return [
      { terms: [[a, size]], right: size },
      { terms: [[b, turn]], right: 0 },
    ];
  });
  const found = leastSquares([...equations, ...holding]);
  const numberOf = (name: string) => found.get(name) ?? 0;
  return {
    maps: new Map(
      begun.map(({ view, model, numbers }) => [view.id, similar(model, numbers, turnedBy(view.id).map(numberOf))]),
    ),
    coordinates: new Map(
      scene.features.flatMap((feature) =>
        directionsOf(feature).flatMap((direction) => {
          const value = found.get(blockOf(feature, direction));
          const names = [blockOf(feature, direction), coordinateBlock(feature.id, direction)];
          return value === undefined ? [] : names.map((name) => [name, value] as const);
        }),
      ),
    ),
  };
}

/** How far apart what a view shows lies in it. */
function extentOf(view: SceneView, model: MapModel, numbers: readonly number[]): number {
  const map = model.mapAt(numbers, OWN_PLANE);
  const { width, height } = view.picture;
  return distance(toPlane(map, [0.25 * width, height / 2]), toPlane(map, [0.75 * width, height / 2])) / 2;
}

/** The numbers of a map that is grown and turned by a + ib, and then shifted. */
function similar(
  model: MapModel,
  numbers: readonly number[],
  [a = 1, b = 0, x = 0, y = 0]: readonly number[],
): number[] {
  const at = (part: 'scale' | 'turn' | 'shift') => firstNumberOf(model, part);
  const size = Math.hypot(a, b);
  const next = [...numbers];
  if (!(size > 1e-6)) return next;
  const [sx, sy] = [numbers[at('shift')]!, numbers[at('shift') + 1]!];
  next[at('scale')]! += Math.log(size);
  next[at('turn')]! += Math.atan2(b, a);
  next[at('shift')] = a * sx - b * sy + x;
  next[at('shift') + 1] = b * sx + a * sy + y;
  return next;
}

/** Stated over shown, of all that is said of coordinates. */
function ratioOf({ features, evidence }: Scene, now: ReadonlyMap<string, number>): number | undefined {
  const byId = new Map(features.map((feature) => [feature.id, feature]));
  const shown = ({ blocks, numbers }: Read) => numbers(blocks.map((block) => [now.get(block) ?? NaN]))[0]!;
  const distances = evidence.flatMap((piece) =>
    piece.kind === 'distance' && !piece.check
      ? [
          piece.mm /
            shown(readDistance(withoutKnown(byId.get(piece.from)!), withoutKnown(byId.get(piece.to)!), piece.along)),
        ]
      : [],
  );
  const apart = DIRECTIONS.flatMap((direction) => {
    const known = features.flatMap((feature) => {
      const mm = directionsOf(feature).includes(direction) ? knownOf(feature, direction) : undefined;
      const at = now.get(blockOf(feature, direction));
      return mm === undefined || at === undefined ? [] : [{ mm, at }];
    });
    const [low, high] = [Math.min(...known.map(({ mm }) => mm)), Math.max(...known.map(({ mm }) => mm))];
    const ends = [low, high].map((end) => known.find(({ mm }) => mm === end));
    return ends[0] && ends[1] ? [(high - low) / Math.abs(ends[1].at - ends[0].at)] : [];
  });
  const ratios = [...distances, ...apart].filter((ratio) => Number.isFinite(ratio) && ratio > 0);
  return ratios.length > 0 ? median(ratios) : undefined;
}

const withoutKnown = ({ mm: _known, ...feature }: SceneFeature): SceneFeature => feature;

/** The numbers by name that satisfy linear equations as well as can be. */
function leastSquares(equations: readonly Equation[]): ReadonlyMap<string, number> {
  const names = [...new Set(equations.flatMap(({ terms }) => terms.map(([name]) => name)))];
  const at = new Map(names.map((name, i) => [name, i]));
  const [normal, right] = [Matrix.zeros(names.length, names.length), Matrix.zeros(names.length, 1)];
  for (const { terms, right: value } of equations)
    for (const [name, factor] of terms) {
      const row = at.get(name)!;
      right.set(row, 0, right.get(row, 0) + factor * value);
      for (const [other, by] of terms) normal.set(row, at.get(other)!, normal.get(row, at.get(other)!) + factor * by);
    }
  for (let i = 0; i < names.length; i++) normal.set(i, i, normal.get(i, i) * (1 + RIDGE));
  const solved = new CholeskyDecomposition(normal).solve(right);
  return new Map(names.map((name, i) => [name, solved.get(i, 0)]));
}
