/** Whatever is done to a job, in whatever order and with whatever is said: it stays one that can be read, and all of it can be taken back. */
import fc from 'fast-check';
import { createRandom } from '../calibrate/simulation';
import type { Chain, MadeOutline, Outline, Siting } from '../outline';
import { listDangling } from './kinds';
import { Chance } from './chance-for-tests';
import { STARTS } from './starts-for-tests';
import * as commands from '.';
import {
  createView,
  findLock,
  isHoldable,
  readJob,
  redo,
  runCommand,
  startHistory,
  undo,
  type Command,
  type History,
  type Job,
  type Sheet,
  type View,
} from '.';

const sheetOf = (id: string, kind: Sheet['kind']): Sheet => ({
  id,
  name: id,
  picture: 'b'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 2000,
  height: 1500,
  kind,
  taken: {},
});

const sitedAs = (chance: Chance, { id: siting, plane }: Siting, of: string): MadeOutline => ({
  shape: 'made',
  id: chance.newId(),
  layer: 'outline',
  plane,
  recipe: { kind: 'sited', of: [of], siting },
});

const lineOf = (chance: Chance, view: string, layer: string): Chain => {
  const id = chance.newId();
  const nodes = Array.from({ length: 3 }, (_, i) => ({ id: `${id}n${i}`, place: chance.pointed(), smooth: false }));
  return {
    shape: 'chain',
    id,
    plane: view,
    layer,
    closed: false,
    nodes,
    segments: [{ kind: 'line' }, { kind: 'line' }],
  };
};

const lengthOf = (chance: Chance) => {
  const [id, from, to] = [chance.newId(), chance.newId(), chance.newId()];
  const value = chance.between(1, 500);
  const said = { length: { value, written: chance.text() } };
  return {
    piece: {
      id,
      kind: 'length',
      groups: [[from, to]],
      said,
      guess: chance.is(),
      role: chance.of(['use', 'check', 'off'] as const),
    },
    points: [from, to].map((point) => ({ id: point, at: chance.place(), sigma: 1 })),
  } as const;
};

type Make = (job: Job, chance: Chance) => Command | undefined;
const among =
  <T extends { readonly id: string }>(
    list: (job: Job) => readonly T[],
    make: (of: T, chance: Chance, job: Job) => Command | undefined,
  ): Make =>
  (job, chance) =>
    list(job).length === 0 ? undefined : make(chance.of(list(job)), chance, job);
const views = (make: (view: View, chance: Chance, job: Job) => Command | undefined) => among((job) => job.views, make);
const outlines = (make: (outline: Outline, chance: Chance, job: Job) => Command | undefined) =>
  among((job) => job.outlines as readonly Outline[], make);
const evidence = (make: (view: View, piece: View['evidence'][number], chance: Chance) => Command | undefined) =>
  views((view, chance) => (view.evidence.length === 0 ? undefined : make(view, chance.of(view.evidence), chance)));
const layerIn = (job: Job, chance: Chance) => chance.of(job.layers).id;
const renamed = <T extends { readonly name: string }>(of: T, chance: Chance): T => ({ ...of, name: chance.text() });

/** Every command by the name of the function that makes it, with what people could say to it. */
const MAKE: Readonly<Record<string, Make>> = {
  renameJob: (_, chance) => commands.renameJob(chance.text()),
  setUnits: (_, chance) =>
    commands.setUnits({ style: chance.of(['mm', 'm', 'inch-fraction']), denominator: chance.of([2, 16, 64]) }),
  setShortest: (_, chance) => commands.setShortest(chance.between(-1, 5)),
  addSheet: (_, chance) => {
    const sheet = sheetOf(chance.newId(), chance.of(['photo', 'scan', 'drawing']));
    return commands.addSheet(sheet, createView(chance.newId(), sheet));
  },
  setSheetKind: among(
    (job) => job.sheets,
    ({ id }, chance) => commands.setSheetKind(id, chance.of(['photo', 'scan'])),
  ),
  setTrustTilt: among(
    (job) => job.sheets,
    ({ id }, chance) => commands.setTrustTilt(id, chance.is()),
  ),
  setLook: views(({ id, look }, chance) => commands.setLook(id, { ...look, opacity: chance.between(0, 1.2) })),
  setHidden: views(({ id }, chance) => commands.setHidden(id, chance.is())),
  setLocked: views(({ id }, chance) => commands.setLocked(id, chance.next() < 0.2)),
  setLookOnly: views(({ id }, chance) => commands.setLookOnly(id, chance.is())),
  renameView: views(({ id }, chance) => commands.renameView(id, chance.text())),
  setSide: views(({ id }, chance) => commands.setSide(id, chance.of(['front', 'top', undefined]))),
  setFrame: views(({ id }, chance) =>
    commands.setFrame(id, chance.of([undefined, [chance.place(), chance.place(), chance.place()], [chance.place()]])),
  ),
  cutView: among(
    (job) => job.sheets,
    (sheet, chance) => commands.cutView(createView(chance.newId(), sheet)),
  ),
  cutViews: among(
    (job) => job.sheets,
    (sheet, chance) => commands.cutViews([createView(chance.newId(), sheet), createView(chance.newId(), sheet)]),
  ),
  orderView: views(({ id }, chance) => commands.orderView(id, Math.floor(chance.between(-2, 6)))),
  setDatum: views(({ id }, chance) =>
    commands.setDatum(id, { origin: chance.place(), direction: chance.between(-3, 3) }, [chance.next(), 4]),
  ),
  turnView: views(({ id }, chance) => commands.turnView(id, chance.between(-3, 3))),
  mirrorView: views(({ id }) => commands.mirrorView(id)),
  removeView: views(({ id }, _, job) => (job.views.length > 1 ? commands.removeView(id) : undefined)),
  shareFit: views(({ id, sheet }, chance, job) => {
    const owners = job.views.filter((other) => other.sheet === sheet && other.id !== id && !other.shares);
    return commands.shareFit(id, owners.length > 0 && chance.is() ? chance.of(owners).id : undefined);
  }),
  addEvidence: views(({ id }, chance) => {
    const { piece, points } = lengthOf(chance);
    return commands.addEvidence(id, piece, points);
  }),
  changeEvidence: evidence(({ id }, piece, chance) =>
    commands.changeEvidence(id, { ...piece, name: chance.text(), plusMinus: chance.between(-0.1, 2) }),
  ),
  removeEvidence: evidence(({ id }, piece) => commands.removeEvidence(id, piece.id)),
  pointAgain: evidence(({ id }, { groups }, chance) =>
    commands.pointAgain(id, [{ id: chance.of(groups.flat()), at: chance.place(), sigma: 1 }]),
  ),
  raisePoints: evidence(({ id }, piece, chance) => commands.raisePoints(id, piece.id, chance.of([undefined, 0, 12]))),
  movePoint: views(({ id, points }, chance) =>
    points.length === 0 ? undefined : commands.movePoint(id, { ...chance.of(points), at: chance.place() }),
  ),
  setModel: views(({ id }, chance) => commands.setModel(id, chance.of(['auto', 'affine']), chance.of(['auto', 'k1']))),
  setLift: views(({ id }, chance) => commands.setLift(id, chance.of([undefined, 3]))),
  setCleaning: views(({ id }, chance) =>
    commands.setCleaning(
      id,
      [{ kind: 'specks', id: chance.newId(), on: chance.is(), size: chance.between(1, 80) }],
      'cleaned',
    ),
  ),
  addOutline: views(({ id }, chance, job) => commands.addOutline(lineOf(chance, id, layerIn(job, chance)))),
  addOutlines: views(({ id }, chance, job) =>
    commands.addOutlines(
      [lineOf(chance, id, layerIn(job, chance)), lineOf(chance, id, chance.of([layerIn(job, chance), 'nowhere']))],
      'duplicated',
    ),
  ),
  changeOutline: outlines((outline, chance) => commands.changeOutline({ ...outline, aid: chance.is() })),
  changeOutlines: outlines((outline, chance, job) =>
    commands.changeOutlines([{ ...outline, layer: layerIn(job, chance) }], 'outlines-moved'),
  ),
  nudgeOutline: outlines((outline) => commands.nudgeOutline({ ...outline }, 'outline-nudged')),
  removeOutlines: outlines(({ id }, chance, job) => commands.removeOutlines([id, chance.of(job.outlines).id])),
  joinOutlines: outlines((outline, chance, job) => {
    const other = chance.of(job.outlines).id;
    return outline.shape === 'chain' && other !== outline.id ? commands.joinOutlines(outline, other) : undefined;
  }),
  replaceOutline: outlines((outline, chance) =>
    outline.shape === 'made'
      ? undefined
      : commands.replaceOutline(outline.id, [lineOf(chance, outline.plane, outline.layer)], 'cut-away'),
  ),
  letGo: outlines((outline, chance) =>
    outline.shape === 'made' && outline.recipe.kind !== 'strip'
      ? commands.letGo(outline.id, [lineOf(chance, outline.plane, outline.layer)])
      : undefined,
  ),
  moveToLayer: outlines(({ id }, chance, job) => commands.moveToLayer([id], chance.of([layerIn(job, chance), 'none']))),
  addMade: outlines(({ id, plane, layer }, chance) => {
    const recipe = { kind: 'offset', of: [id], by: chance.between(-5, 5), both: false, corners: 'round' } as const;
    return commands.addMade({ shape: 'made', id: chance.newId(), plane, layer, recipe }, chance.is());
  }),
  changeRecipe: outlines((outline, chance) =>
    outline.shape === 'made' && outline.recipe.kind === 'offset'
      ? commands.changeRecipe(outline.id, { ...outline.recipe, by: chance.between(-9, 9) })
      : undefined,
  ),
  setAid: outlines(({ id }, chance) => commands.setAid([id], chance.is())),
  changeOpenings: outlines((outline, chance) => {
    if (outline.shape !== 'made' || outline.recipe.kind !== 'strip') return undefined;
    const fill = { kind: 'window', frame: 1, leaf: 1, leaves: 1 } as const;
    const [known] = outline.recipe.openings ?? [];
    const opening = {
      id: chance.newId(),
      corner: known?.corner ?? 'none',
      way: 'on',
      distance: 100,
      width: 50,
      fill,
    } as const;
    return commands.changeOpenings(outline.id, [opening], 'opening-added', chance.newId);
  }),
  addLayer: (_, chance) =>
    commands.addLayer({ id: chance.newId(), name: chance.text(), color: 'tide', show: true, lock: false }),
  changeLayer: among(
    (job) => job.layers,
    (layer, chance) => commands.changeLayer(renamed(layer, chance)),
  ),
  removeLayer: among(
    (job) => job.layers,
    ({ id }, _, job) => (job.layers.length > 1 ? commands.removeLayer(id) : undefined),
  ),
  addGuide: views(({ id }, chance) =>
    commands.addGuide({ id: chance.newId(), plane: id, through: chance.pointed(), angle: chance.next(), offset: 0 }),
  ),
  changeGuide: among(
    (job) => job.guides,
    (guide, chance) => commands.changeGuide({ ...guide, offset: chance.of([3, Number.NaN, 1e300]) }),
  ),
  removeGuide: among(
    (job) => job.guides,
    ({ id }) => commands.removeGuide(id),
  ),
  addRegion: views(({ id }, chance) =>
    commands.addRegion({ id: chance.newId(), plane: id, name: chance.text(), at: chance.place(), kind: 'room' }),
  ),
  changeRegion: among(
    (job) => job.regions,
    (region, chance) => commands.changeRegion({ ...region, height: chance.of([undefined, 2400, -1]) }),
  ),
  removeRegion: among(
    (job) => job.regions,
    ({ id }) => commands.removeRegion(id),
  ),
  addPart: outlines(({ id, plane }, chance) =>
    commands.addPart({ id: chance.newId(), plane, name: chance.text(), of: chance.of([[id], []]) }),
  ),
  changePart: among(
    (job) => job.parts,
    (part, chance) => commands.changePart(renamed(part, chance)),
  ),
  removePart: among(
    (job) => job.parts,
    ({ id }) => commands.removePart(id),
  ),
  addDimension: outlines((outline, chance) => {
    const end = outline.shape === 'chain' ? { outline: outline.id, segment: outline.nodes[0]!.id } : undefined;
    const id = chance.newId();
    return end && commands.addDimension({ id, plane: outline.plane, kind: 'length', on: [end], aside: 4 });
  }),
  changeDimension: among(
    (job) => job.dimensions,
    (dimension, chance) =>
      commands.changeDimension({ ...dimension, should: chance.of([undefined, 40, Number.POSITIVE_INFINITY]) }),
  ),
  removeDimension: among(
    (job) => job.dimensions,
    ({ id }) => commands.removeDimension(id),
  ),
  addRelations: outlines((outline, chance) => {
    if (outline.shape !== 'chain') return undefined;
    const on = [{ outline: outline.id, segment: outline.nodes[0]!.id }];
    return commands.addRelations([
      { id: chance.newId(), plane: outline.plane, kind: chance.of(['level', 'upright']), on },
    ]);
  }),
  removeRelations: among(
    (job) => job.relations,
    ({ id }) => commands.removeRelations([id]),
  ),
  setRelationValue: among(
    (job) => job.relations,
    ({ id }, chance) => commands.setRelationValue(id, chance.of([12, Number.NaN])),
  ),
  declineProposals: outlines((outline) =>
    outline.shape === 'chain'
      ? commands.declineProposals([{ kind: 'level', on: [{ outline: outline.id, segment: outline.nodes[0]!.id }] }])
      : undefined,
  ),
  proposeAgain: views(({ id }) => commands.proposeAgain(id)),
  addFeature: views(({ id: view }, chance) =>
    commands.addFeature({
      id: chance.newId(),
      name: chance.text(),
      along: chance.of(['up', 'across', undefined]),
      said: chance.is() ? { up: { value: chance.between(-900, 900), written: chance.text() } } : {},
      seen: [{ id: chance.newId(), view, at: chance.place(), sigma: 1 }],
    }),
  ),
  changeFeature: among(
    (job) => job.features,
    (feature, chance) =>
      commands.changeFeature({ ...renamed(feature, chance), plusMinus: chance.of([2, undefined, -1]) }),
  ),
  removeFeature: among(
    (job) => job.features,
    ({ id }) => commands.removeFeature(id),
  ),
  seeFeature: among(
    (job) => job.features,
    ({ id }, chance, { views: [view] }) =>
      view &&
      commands.seeFeature(id, { id: chance.newId(), view: view.id, at: chance.place(), sigma: chance.between(0, 2) }),
  ),
  shareLines: among(
    (job) => job.features,
    ({ id, name, along }, chance, { views: [view] }) => {
      const place = () => ({ id: chance.newId(), view: view!.id, at: chance.place(), sigma: chance.between(0.1, 2) });
      const upright = { id: chance.newId(), name: 'End', along: 'across' as const, seen: [place(), place()] };
      return view && commands.shareLines([{ id, name, along, seen: [place()] }, upright]);
    },
  ),
  moveSeen: among(
    (job) => job.features.filter(({ seen }) => seen.length > 0),
    ({ id, seen }, chance) => commands.moveSeen(id, { ...chance.of(seen), at: chance.place() }),
  ),
  unseeFeature: among(
    (job) => job.features.filter(({ seen }) => seen.length > 0),
    ({ id, seen }, chance) => commands.unseeFeature(id, chance.of(seen).id),
  ),
  addSpan: among(
    (job) => job.features,
    ({ id }, chance, { features }) =>
      commands.addSpan({
        id: chance.newId(),
        from: id,
        to: chance.of(features).id,
        said: { value: chance.between(0, 900), written: chance.text() },
        guess: chance.is(),
        role: chance.of(['use', 'check']),
      }),
  ),
  changeSpan: among(
    (job) => job.spans,
    (span, chance) => commands.changeSpan({ ...span, role: chance.of(['use', 'check', 'off']) }),
  ),
  setLiesAt: among(
    (job) => job.features,
    ({ id }, chance, { views: all }) => all[0] && commands.setLiesAt(chance.of(all).id, chance.is() ? id : undefined),
  ),
  addLook: (_, chance) =>
    commands.addLook({
      id: chance.newId(),
      name: chance.of(['Aslant', chance.text()]),
      fold: chance.between(0, 1.05),
      turn: chance.between(-4, 4),
      tip: 0,
    }),
  changeLook: among(
    (job) => job.looks,
    (look, chance) => commands.changeLook({ ...renamed(look, chance), turn: chance.of([1, NaN]) }),
  ),
  removeLook: among(
    (job) => job.looks,
    ({ id }) => commands.removeLook(id),
  ),
  setStandsOn: among(
    (job) => job.outlines,
    ({ id }, chance, { views: all }) =>
      all[0] &&
      commands.setStandsOn(
        chance.of(all).id,
        chance.is() ? { outline: id, from: chance.text().slice(0, 9), along: chance.of([3, NaN, -9]) } : undefined,
      ),
  ),
  standBetween: views(({ id: view }, chance, { features }) => {
    const end = () => ({
      ...chance.of([{ name: 'Corner' }, ...features]),
      id: chance.of([{ id: chance.newId() }, ...features]).id,
      seen: [{ id: chance.newId(), view, at: chance.place(), sigma: chance.between(0.1, 2) }],
    });
    return commands.standBetween(view, [end(), end()]);
  }),
  turnOnEdge: views(({ id }) => commands.turnOnEdge(id)),
  addSpaceCurve: among(
    (job) => job.outlines,
    ({ id }, chance, { outlines }) => {
      const others = outlines.filter((other) => other.id !== id || chance.is());
      const name = chance.of(['Rail', chance.text()]);
      return commands.addSpaceCurve({ id: chance.newId(), name, of: [id, chance.of([...others, { id }]).id] });
    },
  ),
  changeSpaceCurve: among(
    (job) => job.spaceCurves,
    (curve, chance, { features }) =>
      commands.changeSpaceCurve({ ...renamed(curve, chance), mirrored: chance.of([...features, undefined])?.id }),
  ),
  removeSpaceCurve: among(
    (job) => job.spaceCurves,
    ({ id }) => commands.removeSpaceCurve(id),
  ),
  setWorkAlong: views(({ id }, chance) =>
    commands.setWorkAlong(id, chance.between(-3, 3), chance.of([undefined, 0.3, NaN])),
  ),
  setOnPlane: among(
    (job) => job.outlines,
    ({ id, plane }, chance, { planes, outlines }) => {
      const others = planes.filter((other) => other.id !== plane || chance.next() < 0.1);
      const siting = {
        id: chance.newId(),
        plane: chance.of([...others, { id: plane }]).id,
        of: plane,
        holds: [
          {
            id: chance.newId(),
            kind: chance.of(['parallel', 'off', 'apart'] as const),
            own: { outline: id },
            to: { outline: chance.of(outlines).id },
            value: chance.of([0, 900, -50, NaN]),
          },
        ],
        put: { at: chance.place(), turn: chance.between(-9, 9) },
      };
      return commands.setOnPlane(siting, [sitedAs(chance, siting, id)]);
    },
  ),
  addSited: among(
    (job) => job.sitings,
    (siting, chance, { outlines }) =>
      outlines.length > 0 ? commands.addSited([sitedAs(chance, siting, chance.of(outlines).id)]) : undefined,
  ),
  changeSiting: among(
    (job) => job.sitings,
    (siting, chance) => commands.changeSiting({ ...siting, overhang: chance.of([0, 300, -1]) }, 'overhang-set'),
  ),
  removeSiting: among(
    (job) => job.sitings,
    ({ id }) => commands.removeSiting(id),
  ),
  putSetback: among(
    (job) => job.outlines,
    ({ id, plane }, chance, { setbacks }) =>
      commands.putSetback({
        id: chance.of([...setbacks.map((other) => other.id), chance.newId()]),
        plane,
        on: [{ outline: id }],
        mm: chance.of([3000, 0, -1]),
      }),
  ),
  removeSetback: among(
    (job) => job.setbacks,
    ({ id }) => commands.removeSetback(id),
  ),
  layBeside: (job, chance) =>
    commands.layBeside({
      id: chance.of([...job.variants.map(({ id }) => id), chance.newId()]),
      side: chance.of(['front', 'top'] as const),
      gap: chance.of([0, 200, NaN]),
    }),
  layOver: among(
    (job) => job.variants,
    ({ id }) => commands.layOver(id),
  ),
  showOnly: views(({ id }, _, { views: all }) =>
    commands.showOnly(
      [id],
      all.map((view) => view.id),
    ),
  ),
  setStandOff: views(({ id }, chance) =>
    commands.setStandOff(id, chance.of([undefined, { right: chance.of([90, NaN]), up: 0, out: -400 }])),
  ),
  standByEye: (job, chance) =>
    job.planes.length > 0
      ? commands.standByEye({
          id: chance.newId(),
          plane: chance.of(job.planes).id,
          thing: chance.of(['door', 'hand'] as const),
          from: 'standing',
          at: { ...chance.pointed(), ...chance.of([{}, { view: chance.of([...job.views, { id: 'nobody' }]).id }]) },
          turn: chance.of([0, 1.2, Infinity]),
        })
      : undefined,
  moveByEye: among(
    (job) => job.byEye,
    (stood, chance) => commands.moveByEye({ ...stood, at: chance.pointed() }),
  ),
  removeByEye: among(
    (job) => job.byEye,
    ({ id }) => commands.removeByEye(id),
  ),
  removeSpan: among(
    (job) => job.spans,
    ({ id }) => commands.removeSpan(id),
  ),
  setSides: views(({ id }, chance) => commands.setSides(new Map([[id, chance.of(['front', 'left', 'top'])]]))),
  setProjection: (_, chance) => commands.setProjection(chance.of(['first', 'third'])),
  setJoins: views(({ id }, chance) => commands.setJoins(id, chance.is())),
  addReference: (_, chance) =>
    commands.addReference({
      id: chance.newId(),
      name: chance.text(),
      file: 'c'.repeat(64),
      bytes: 9,
      format: 'svg',
      plane: commands.SITE,
      shown: true,
      hiddenLayers: [],
    }),
  changeReference: among(
    (job) => job.references,
    ({ id }, chance) => commands.changeReference(id, 'reference-unit-set', { unitMm: chance.of([25.4, undefined, 0]) }),
  ),
  removeReference: among(
    (job) => job.references,
    ({ id }) => commands.removeReference(id),
  ),
  layOnPlane: views(({ id }, chance) => {
    const { piece, points } = lengthOf(chance);
    return commands.layOnPlane(id, commands.SITE, [piece], points);
  }),
  addPlacedSheet: (_, chance) => {
    const sheet = sheetOf(chance.newId(), 'scan');
    return commands.addPlacedSheet(sheet, createView(chance.newId(), sheet), { zero: [1, 2] });
  },
  setAsked: (_, chance) =>
    commands.setAsked([{ id: chance.newId(), kind: 'length', what: chance.text() }], 'size-asked'),
};

const steps = fc.array(
  fc.tuple(
    fc.constantFrom(...Object.keys(MAKE)),
    fc.array(
      fc.integer({ min: 0, max: 9999 }).map((n) => n / 10_000),
      { minLength: 8, maxLength: 8 },
    ),
  ),
  { minLength: 1, maxLength: 60, size: 'max' },
);
const stored = (job: Job): unknown => JSON.parse(JSON.stringify(job));

/** Does what the store would: nothing over a lock, and nothing that could not be read again. */
function tried(history: History, command: Command): History {
  if (findLock(history.job, command)) return history;
  const next = runCommand(history, command);
  return isHoldable(history.job, next.job) ? next : history;
}

/** Whether a command changes one of the jobs that are begun with, and is taken back. */
function isDoneAlone(name: string): boolean {
  const random = createRandom(5).uniform;
  return STARTS.some((start) =>
    Array.from({ length: 40 }).some((_, step) => {
      const command = MAKE[name]!(start, new Chance(Array.from({ length: 8 }, random), step));
      const history = command && tried(startHistory(start), command);
      return history !== undefined && history.cursor > 0 && isSameText(undo(history).job, start);
    }),
  );
}

const isSameText = (a: Job, b: Job) => JSON.stringify(a) === JSON.stringify(b);

it('is done by every command that there is', () => {
  const made = Object.entries(commands).filter(
    ([name, value]) =>
      typeof value === 'function' &&
      /^(add|change|remove|set|join|replace|move|cut|order|turn|mirror|share|point|raise|nudge|letGo|see|unsee|lay|decline|propose|rename|stand|show)/.test(
        name,
      ),
  );
  expect(made.map(([name]) => name).filter((name) => !(name in MAKE))).toEqual([]);
});

it('leaves a job that hangs together, is read as it is, and comes back bit for bit', () => {
  const reached = new Map<string, number>();
  const refused = new Map<string, number>();
  fc.assert(
    fc.property(fc.constantFrom(...STARTS), steps, (start, done) => {
      let history = startHistory(start);
      done.forEach(([name, numbers], i) => {
        const command = MAKE[name]!(history.job, new Chance(numbers, i));
        if (!command) return;
        const before = history;
        const next = runCommand(history, command);
        history = tried(history, command);
        const counted = history === before ? refused : reached;
        if (next !== before) counted.set(name, (counted.get(name) ?? 0) + 1);
        // What is let in by what changed alone is what would be let in as a whole.
        if (next !== before && !findLock(before.job, command))
          expect([name, isHoldable(before.job, next.job)]).toEqual([name, readJob(stored(next.job)).ok]);
      });
      expect(listDangling(history.job)).toEqual([]);
      const last = history.job;
      const read = readJob(stored(last));
      expect(read.ok && read.value).toEqual(stored(last));
      while (history.cursor > 0) history = undo(history);
      expect(history.job).toEqual(start);
      while (history.cursor < history.entries.length) history = redo(history);
      expect(history.job).toEqual(last);
    }),
    { seed: 7, numRuns: 120 },
  );
  // What chance did not come to is tried on its own.
  expect(Object.keys(MAKE).filter((name) => !reached.has(name) && !isDoneAlone(name))).toEqual([]);
  // Names without a letter, far too long ones, and what is no number are among what was said.
  for (const name of ['renameJob', 'changeGuide', 'setRelationValue', 'addPart', 'addOutlines', 'changeReference'])
    expect([name, (refused.get(name) ?? 0) > 0]).toEqual([name, true]);
});
