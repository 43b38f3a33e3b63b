import type { Draft } from 'immer';
import { isSameList } from '../basics';
import {
  openingsOf,
  listPointed,
  placesOf,
  turnedGuide,
  turnedOutline,
  turnedSiting,
  angleOfTurn,
  type Outline,
  type Place,
  type Turn,
} from '../outline';
import { findTurned, type Relation, type RelationEnd } from '../relate';
import { draft } from './command';
import type { Dimension, Job } from './schema';

/** The lists of a job, each of entities of one kind. */
export type ListName =
  | 'sheets'
  | 'views'
  | 'planes'
  | 'layers'
  | 'outlines'
  | 'guides'
  | 'relations'
  | 'regions'
  | 'dimensions'
  | 'parts'
  | 'declined'
  | 'features'
  | 'spans'
  | 'spaceCurves'
  | 'looks'
  | 'sitings'
  | 'setbacks'
  | 'variants'
  | 'byEye'
  | 'references';
type EntityIn<L extends ListName> = Job[L][number];

/** Something in a job by its list and its id there. */
export interface Name {
  readonly list: ListName;
  readonly id: string;
}

type IsGone = (list: ListName, id: string) => boolean;
type PlaneId = string;

/** What has to be known of a kind of entity, so that no command has to remember it by hand. */
interface Kind<E> {
  /** All that it holds of other entities. */
  names(entity: E): readonly Name[];
  /** How it is without those that are gone; undefined where it goes with them. */
  without(entity: E, isGone: IsGone): E | undefined;
  /** On which planes it lies. */
  planesOf(entity: E, job: Job): readonly PlaneId[];
  /** The same said in other axes of a plane of its; none where it cannot be said. */
  turned(entity: E, turn: Turn, plane: PlaneId): readonly E[];
}

const name = (list: ListName, id: string): Name => ({ list, id });
const endsOf = (on: readonly RelationEnd[]) => on.map(({ outline }) => name('outlines', outline));
const isWhole = (names: readonly Name[], isGone: IsGone) => !names.some(({ list, id }) => isGone(list, id));
const still = <E>(entity: E): readonly E[] => [entity];

/** A kind that goes with any of those that it holds. */
function whole<L extends ListName>(kind: Omit<Kind<EntityIn<L>>, 'without'>): Kind<EntityIn<L>> {
  return { ...kind, without: (entity, isGone) => (isWhole(kind.names(entity), isGone) ? entity : undefined) };
}

const onPlane = ({ plane }: { readonly plane: string }) => [plane];
const planeName = ({ plane }: { readonly plane: string }) => name('planes', plane);
const onNone = () => [];

/** The views in which places were pointed that name one. */
function viewsNamedIn(places: readonly (Place | undefined)[]): readonly Name[] {
  const pointed = places.flatMap((place) => (place ? listPointed(place, () => undefined, new Set()) : []));
  return [...new Set(pointed.flatMap(({ view }) => view ?? []))].map((view) => name('views', view));
}

/** Who names whom, and what turns with a plane: a new kind of entity is one more row. */
export const KINDS: { readonly [L in ListName]: Kind<EntityIn<L>> } = {
  sheets: whole<'sheets'>({ names: () => [], planesOf: onNone, turned: still }),
  views: {
    names: (view) => [
      ...viewNeeds(view),
      ...(view.liesAt === undefined ? [] : [name('features', view.liesAt)]),
      ...edgeNamed(view.standsOn),
    ],
    without: viewWithout,
    planesOf: onNone,
    turned: still,
  },
  planes: {
    names: ({ liesOn }) => (liesOn === undefined ? [] : [name('planes', liesOn)]),
    // What its view was laid by holds on.
    without: (plane, isGone) =>
      plane.liesOn !== undefined && isGone('planes', plane.liesOn) ? { id: plane.id } : plane,
    planesOf: onNone,
    turned: still,
  },
  layers: {
    names: ({ liesAt, risesTo }) => [liesAt, risesTo].flatMap((id) => (id === undefined ? [] : [name('features', id)])),
    // What is on it lies where its view says again, and is flat.
    without: (layer, isGone) => {
      const { liesAt, risesTo, ...rest } = layer;
      const left = Object.entries({ liesAt, risesTo }).filter(([, id]) => id !== undefined && !isGone('features', id));
      return { ...rest, ...Object.fromEntries(left) };
    },
    planesOf: onNone,
    turned: still,
  },
  outlines: {
    names: (outline) => [...neededBy(outline), ...sourcesOf(outline), ...readFrom(outline)],
    without: outlineWithout,
    planesOf: onPlane,
    turned: (outline, turn) => [turnedOutline(outline as Outline, turn) as EntityIn<'outlines'>],
  },
  guides: whole<'guides'>({
    names: (guide) => [planeName(guide), ...viewsNamedIn([guide.through, guide.towards])],
    planesOf: onPlane,
    turned: (guide, turn) => [turnedGuide(guide, turn)],
  }),
  relations: whole<'relations'>({
    names: (relation) => [planeName(relation), ...endsOf(relation.on)],
    planesOf: onPlane,
    turned: (relation, turn) => listed(findTurned(relation as Relation, turn)),
  }),
  regions: whole<'regions'>({
    names: (region) => [planeName(region), ...(region.view === undefined ? [] : [name('views', region.view)])],
    planesOf: onPlane,
    turned: (region, turn) => [{ ...region, at: turn.place(region.at) }],
  }),
  dimensions: whole<'dimensions'>({
    names: (dimension) => [planeName(dimension), ...endsOf(dimension.on)],
    planesOf: onPlane,
    turned: (dimension, turn) => [turnedDimension(dimension, turn)],
  }),
  parts: {
    names: (part) => [planeName(part), ...part.of.map((id) => name('outlines', id))],
    without: (part, isGone) => shrunk(part, part.of, !isGone('planes', part.plane), isGone, (of) => ({ ...part, of })),
    planesOf: onPlane,
    turned: still,
  },
  declined: whole<'declined'>({
    names: ({ on }) => endsOf(on),
    planesOf: ({ on }, { outlines }) => outlines.flatMap(({ id, plane }) => (id === on[0]?.outline ? plane : [])),
    turned: (declined, turn) =>
      listed(findTurned({ ...declined, id: '', plane: '' }, turn)).map(({ kind, on }) => ({ kind, on })),
  }),
  features: {
    names: ({ seen }) => [...new Set(seen.map(({ view }) => view))].map((view) => name('views', view)),
    without: featureWithout,
    planesOf: onNone,
    turned: still,
  },
  spans: whole<'spans'>({
    names: ({ from, to }) => [name('features', from), name('features', to)],
    planesOf: onNone,
    turned: still,
  }),
  spaceCurves: {
    names: ({ of, mirrored }) => [
      ...of.map((id) => name('outlines', id)),
      ...(mirrored === undefined ? [] : [name('features', mirrored)]),
    ],
    without: spaceCurveWithout,
    planesOf: onNone,
    turned: still,
  },
  looks: whole<'looks'>({ names: () => [], planesOf: onNone, turned: still }),
  sitings: {
    names: (siting) => [...planesSited(siting), ...siting.holds.flatMap((hold) => endsOf([hold.own, hold.to]))],
    without: sitingWithout,
    planesOf: ({ plane, of }) => [plane, of],
    turned: (siting, turn, plane) => [turnedSiting(siting, turn, plane)],
  },
  setbacks: whole<'setbacks'>({
    names: (setback) => [planeName(setback), ...endsOf(setback.on)],
    planesOf: onPlane,
    turned: still,
  }),
  variants: whole<'variants'>({ names: () => [], planesOf: onNone, turned: still }),
  byEye: whole<'byEye'>({
    names: (stood) => [planeName(stood), ...viewsNamedIn([stood.at])],
    planesOf: onPlane,
    turned: (stood, turn) => [{ ...stood, turn: stood.turn + angleOfTurn(turn) }],
  }),
  references: whole<'references'>({ names: ({ plane }) => [name('planes', plane)], planesOf: onNone, turned: still }),
};

export const LISTS = Object.keys(KINDS) as readonly ListName[];

const listed = <E>(entity: E | undefined): readonly E[] => (entity === undefined ? [] : [entity]);

/** What a view cannot be without. */
const viewNeeds = ({ sheet, plane, shares }: EntityIn<'views'>): readonly Name[] => [
  name('sheets', sheet),
  name('planes', plane),
  ...(shares === undefined ? [] : [name('views', shares)]),
];

type Edge = EntityIn<'views'>['standsOn'];

const edgeNamed = (edge: Edge): readonly Name[] =>
  edge === undefined
    ? []
    : [
        name('outlines', edge.outline),
        ...(edge.ends ? [name('features', edge.ends.from), name('features', edge.ends.to)] : []),
      ];

/** Where one of its ends is gone, a view stands on the edge by its zero again. */
function edgeWithout(edge: Edge, isGone: IsGone): Edge {
  if (edge === undefined || isGone('outlines', edge.outline)) return undefined;
  const { ends, ...rest } = edge;
  return ends && [ends.from, ends.to].some((end) => isGone('features', end)) ? rest : edge;
}

/** Where what it lies at is gone, it lies at zero again; where what it stands on is gone, it stands no more. */
function viewWithout(view: EntityIn<'views'>, isGone: IsGone): EntityIn<'views'> | undefined {
  if (!isWhole(viewNeeds(view), isGone)) return undefined;
  const { liesAt, standsOn, ...rest } = view;
  const isLoose = liesAt !== undefined && isGone('features', liesAt);
  const edge = edgeWithout(standsOn, isGone);
  if (!isLoose && edge === standsOn) return view;
  return {
    ...rest,
    ...(liesAt === undefined || isLoose ? {} : { liesAt }),
    ...(edge ? { standsOn: edge } : {}),
  };
}

const planesSited = ({ plane, of }: EntityIn<'sitings'>): readonly Name[] => [
  name('planes', plane),
  name('planes', of),
];

/** Where what holds it is gone, it stands by the rest. */
function sitingWithout(siting: EntityIn<'sitings'>, isGone: IsGone): EntityIn<'sitings'> | undefined {
  if (!isWhole(planesSited(siting), isGone)) return undefined;
  const holds = siting.holds.filter(({ own, to }) => isWhole(endsOf([own, to]), isGone));
  return holds.length === siting.holds.length ? siting : { ...siting, holds };
}

/** What an outline cannot be without. */
function neededBy(outline: Outline): readonly Name[] {
  const needed = [name('planes', outline.plane), name('layers', outline.layer), ...viewsNamedIn(placesOf(outline))];
  if (outline.shape !== 'made') return needed;
  const { recipe } = outline;
  if (recipe.kind === 'sited') return [...needed, name('sitings', recipe.siting)];
  // What nothing is taken away from any more was the body of what is left.
  if (recipe.kind === 'combined' && recipe.how === 'subtracted') return [...needed, name('outlines', recipe.of[0]!)];
  return recipe.kind === 'mirrored' ? [...needed, name('guides', recipe.guide)] : needed;
}

const sourcesOf = (outline: Outline): readonly Name[] =>
  outline.shape === 'made' ? outline.recipe.of.map((id) => name('outlines', id)) : [];

/** Outlines of other views that openings of a wall were read from. */
const readFrom = (outline: Outline): readonly Name[] =>
  openingsOf(outline).flatMap(({ read }) => (read === undefined ? [] : [name('outlines', read)]));

function outlineWithout(outline: EntityIn<'outlines'>, isGone: IsGone): EntityIn<'outlines'> | undefined {
  const isNeededThere = isWhole(neededBy(outline), isGone);
  if (outline.shape !== 'made') return isNeededThere ? outline : undefined;
  const left = isWhole(readFrom(outline), isGone) ? outline : unread(outline, isGone);
  return shrunk(left, left.recipe.of, isNeededThere, isGone, (of) => ({ ...left, recipe: { ...left.recipe, of } }));
}

type MadeEntity = Extract<EntityIn<'outlines'>, { shape: 'made' }>;

/** Openings whose outline in another view is gone are as wide and as high as they were read. */
function unread(outline: MadeEntity, isGone: IsGone): MadeEntity {
  const { recipe } = outline;
  if (recipe.kind !== 'strip' || !recipe.openings) return outline;
  const openings = recipe.openings.map(({ read, ...opening }) =>
    read === undefined || isGone('outlines', read) ? opening : { ...opening, read },
  );
  return { ...outline, recipe: { ...recipe, openings } };
}

/** What no view shows any more stays where somebody said where it is. */
function featureWithout(feature: EntityIn<'features'>, isGone: IsGone): EntityIn<'features'> | undefined {
  const seen = feature.seen.filter(({ view }) => !isGone('views', view));
  if (seen.length === feature.seen.length) return feature;
  return seen.length > 0 || Object.keys(feature.said).length > 0 ? { ...feature, seen } : undefined;
}

/** It is of both its outlines; what it was mirrored about it can be without. */
function spaceCurveWithout(curve: EntityIn<'spaceCurves'>, isGone: IsGone): EntityIn<'spaceCurves'> | undefined {
  if (curve.of.some((id) => isGone('outlines', id))) return undefined;
  if (curve.mirrored === undefined || !isGone('features', curve.mirrored)) return curve;
  const { mirrored: _gone, ...rest } = curve;
  return rest;
}

/** Something made of several, without those that are gone; itself where none is. */
function shrunk<E>(
  entity: E,
  of: readonly string[],
  isNeededThere: boolean,
  isGone: IsGone,
  withSources: (of: readonly string[]) => E,
): E | undefined {
  const left = of.filter((id) => !isGone('outlines', id));
  if (!isNeededThere || left.length === 0) return undefined;
  return left.length === of.length ? entity : withSources(left);
}

/** It stands to the same side of what it is read between. Where sizes in a row stand is said in axes that are as they were, or said no more. */
function turnedDimension({ line, ...dimension }: Dimension, turn: Turn): Dimension {
  const aside = { ...dimension, aside: turn.hand * dimension.aside };
  const [x, y] = turn.displacement([1, 0]);
  if (line === undefined || y !== 0 || Math.abs(x) !== 1) return aside;
  const [across, up] = turn.place([line, line]);
  return { ...aside, line: dimension.kind === 'up' ? across : up };
}

/** Takes entities out of a job, and what cannot be without them, or is of nothing then. */
export function takeOut(job: Draft<Job>, names: readonly Name[]): void {
  const gone = new Set(names.map(keyOf));
  const isGone: IsGone = (list, id) => gone.has(keyOf({ list, id }));
  for (let before = -1; gone.size > before;) {
    before = gone.size;
    for (const list of LISTS) {
      const left = listWithout(list, job as Job, isGone);
      const kept = new Set(left.map(idOf));
      (job[list] as readonly object[])
        .map(idOf)
        .forEach((id) => void (id !== undefined && !kept.has(id) && gone.add(keyOf({ list, id }))));
      put(job, list, left);
    }
  }
}

/** Another list in the place of one, where anything of it is another. */
function put<L extends ListName>(job: Draft<Job>, list: L, entities: readonly EntityIn<L>[]): void {
  if (!isSameList(job[list] as readonly unknown[], entities)) Object.assign(job, { [list]: draft([...entities]) });
}

const keyOf = ({ list, id }: Name) => `${list}/${id}`;
const idOf = (entity: object): string | undefined => (entity as { readonly id?: string }).id;

function listWithout<L extends ListName>(list: L, job: Job, isGone: IsGone): readonly EntityIn<L>[] {
  const kind = KINDS[list] as Kind<EntityIn<L>>;
  return (job[list] as readonly EntityIn<L>[]).flatMap((entity) => {
    const id = idOf(entity);
    return id !== undefined && isGone(list, id) ? [] : listed(kind.without(entity, isGone));
  });
}

/** Says what lies on a plane in other axes of it. */
export function turnPlane(job: Draft<Job>, plane: string, turn: Turn): void {
  const turnedList = <L extends ListName>(list: L): readonly EntityIn<L>[] => {
    const kind = KINDS[list] as Kind<EntityIn<L>>;
    return (job[list] as readonly EntityIn<L>[]).flatMap((entity) =>
      kind.planesOf(entity, job as Job).includes(plane) ? kind.turned(entity, turn, plane) : [entity],
    );
  };
  const turned = LISTS.map((list) => [list, turnedList(list)] as const);
  for (const [list, entities] of turned) put(job, list, entities);
}

/** What entities of a job name that is not there. */
export function listDangling(job: Job): readonly Name[] {
  const known = new Set(
    LISTS.flatMap((list) => job[list].flatMap((entity) => listed(idOf(entity)).map((id) => keyOf({ list, id })))),
  );
  return LISTS.flatMap((list) =>
    (job[list] as readonly EntityIn<typeof list>[]).flatMap((entity) =>
      (KINDS[list] as Kind<typeof entity>).names(entity),
    ),
  ).filter((named) => !known.has(keyOf(named)));
}
