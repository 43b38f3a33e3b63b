import { useEffect, useRef } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { createJob, listFiles, type Job } from '@/core/job';
import {
  createJobOf,
  deleteStored,
  duplicateStored,
  forgetMark,
  isKept,
  isPutBack,
  isThrownAway,
  keepStorage,
  newId,
  openBundle,
  renameStored,
  repository,
  storage,
  storeJob,
  type Imported,
} from '@/store';

const JOBS = ['jobs'];

export function useJobCards() {
  return useQuery({ queryKey: JOBS, queryFn: () => repository.listCards() });
}

/** Whether this browser keeps anything when its window is closed. */
export function useIsKept(): boolean {
  return useQuery({ queryKey: ['is-kept'], queryFn: isKept, staleTime: Infinity }).data ?? true;
}

/** What became of jobs that the browser threw away: they are gone, or put back from their second copy. */
export type Loss = 'thrown-away' | 'put-back';

async function findLoss(): Promise<Loss | null> {
  // Where a browser keeps nothing there is nothing to throw away.
  if (!(await isKept())) return null;
  if (await isThrownAway(storage, localStorage)) return 'thrown-away';
  return (await isPutBack()) ? 'put-back' : null;
}

/** Whether the browser threw away what was stored here, until that was read. */
export function useLoss(holdsJobs: boolean): { readonly loss: Loss | undefined; onRead(): void } {
  const client = useQueryClient();
  const queryKey = ['loss'];
  const { data } = useQuery({ queryKey, queryFn: findLoss, staleTime: Infinity, gcTime: Infinity });
  // Also jobs of before there was a mark, and what was stored before it was read.
  useEffect(() => {
    if (holdsJobs) void keepStorage();
  }, [holdsJobs, data]);
  const onRead = () => {
    if (data === 'thrown-away') forgetMark(localStorage);
    client.setQueryData(queryKey, null);
  };
  return { loss: data ?? undefined, onRead };
}

/** How much of this device the jobs take, bytes; undefined where the browser does not say. */
export function useRoomTaken(): number | undefined {
  return (
    useQuery({ queryKey: [...JOBS, 'room'], queryFn: async () => (await navigator.storage?.estimate())?.usage ?? null })
      .data ?? undefined
  );
}

/** What can be done with jobs from the list. Each refreshes the list when it is through. */
export function useJobActions() {
  const client = useQueryClient();
  const reading = useRef<AbortController>(undefined);
  const refresh = () => client.invalidateQueries({ queryKey: JOBS });
  const create = useMutation({
    mutationFn: (name: string) => createJobOf(createJob(newId(), name, new Date()), undefined, repository),
    onSuccess: refresh,
  });
  const outside = { repository, storage };
  const rename = useMutation({
    mutationFn: ({ id, name }: { id: string; name: string }) => renameStored(id, name, outside),
    onSettled: refresh,
  });
  const duplicate = useMutation({ mutationFn: (id: string) => duplicateStored(id, outside), onSettled: refresh });
  const remove = useMutation({ mutationFn: (id: string) => deleteStored(id, outside), onSettled: refresh });
  const openFile = useMutation({
    mutationFn: async (file: File): Promise<Imported> => {
      const { signal } = (reading.current = new AbortController());
      return openBundle(await file.arrayBuffer(), repository, signal);
    },
    onSuccess: refresh,
  });
  const stopOpening = () => reading.current?.abort();
  const openDemo = useMutation({ mutationFn: openDemoJob, onSuccess: refresh });
  return { create, rename, duplicate, remove, openFile, stopOpening, openDemo, refresh };
}

export interface DemoJob {
  readonly name: string;
  readonly title: string;
  readonly says: string;
  /** The files that it stands on, in the order in which its document names them. */
  readonly files: readonly string[];
}

export const DEMO_JOBS: readonly DemoJob[] = [
  {
    name: 'blade-start',
    title: 'Pruner blade: start here',
    says: 'A worn blade beside a card and a rule. Set the scale, check it, trace it, cut it: four short steps.',
    files: ['blade.jpg'],
  },
  {
    name: 'blade-finished',
    title: 'Pruner blade: finished',
    says: 'The same photo with its scale, a check, the traced outline and the holes.',
    files: ['blade.jpg'],
  },
  {
    name: 'blade-slanted',
    title: 'Pruner blade: slanted',
    says: 'Photographed from aside, through a lens that bows. Card, rule and a straight edge put it right; one size from a message does not belong.',
    files: ['blade-slanted.jpg'],
  },
  {
    name: 'nest-box',
    title: 'Nest box: a stretched print',
    says: 'A drawing that was printed “to fit the page” and scanned askew. Its printed sizes find the stretch, and one of them is wrong.',
    files: ['nest-box.jpg'],
  },
  {
    name: 'bench-views',
    title: 'Garden bench: three views',
    says: 'Front, side and top on one old sheet, standing together on one base line. What disagrees is named, and one printed size is wrong.',
    files: ['bench-views.jpg'],
  },
  {
    name: 'trowel',
    title: 'Hand trowel: a curve in space',
    says: 'A bent tang, drawn from the front and from above: two flat curves become the one in space that a smith can bend to.',
    files: ['trowel.jpg'],
  },
  {
    name: 'glasshouse',
    title: 'Glasshouse: plan and four sides',
    says: 'The back has no size of its own and takes it from the others; one side was scanned from behind, which is found. Together they stand around the plan.',
    files: ['glasshouse-plan.jpg', 'glasshouse-sides.jpg', 'glasshouse-back.jpg', 'glasshouse-right.jpg'],
  },
  {
    name: 'orchard',
    title: 'Orchard: a glasshouse on its site',
    says: 'A plan set down along a garden wall. Its gutter hangs over what has to be kept clear: by how much is said, and it slides along the wall.',
    files: ['orchard.jpg', 'glasshouse-plan.jpg'],
  },
  {
    name: 'blade-drawn',
    title: 'Pruner blade: drawn',
    says: 'The rough trace with what is true of it: tangent, parallel, as large. Its sizes stand on the drawing beside what they should be.',
    files: ['blade.jpg'],
  },
  {
    name: 'nest-half',
    title: 'Nest box: from its half',
    says: 'Half a front and a centre line make the whole one, closed exactly on the line.',
    files: ['nest-box.jpg'],
  },
  {
    name: 'hanger',
    title: 'Pot hanger: from its middle line',
    says: 'Flat bar bent to a hook, drawn as a strip along its middle line. Change its thickness, and it follows.',
    files: ['hanger.jpg'],
  },
  {
    name: 'shed',
    title: 'Potting shed: a plan',
    says: 'Walls with a thickness, a door, a window; two rooms to name, with their areas.',
    files: ['shed-plan.jpg'],
  },
  {
    name: 'sources',
    title: 'Bring things in',
    says: 'A PDF of drawings, a dusty scan, a film, a sketch on wrapping paper, a survey: files of every kind to try, cut, straighten and clean.',
    files: [],
  },
  {
    name: 'pond',
    title: 'Pond: a sketch onto a survey',
    says: 'A surveyed pond and a water-stained sketch of stepping stones. Four taps lay the sketch where it belongs.',
    files: ['stones.jpg', 'pond.dxf'],
  },
  {
    name: 'can',
    title: 'Watering can: three sides',
    says: 'One thing photographed from the front, the side and above, each with a card beside it.',
    files: ['can-front.jpg', 'can-side.jpg', 'can-top.jpg'],
  },
];

async function openDemoJob(demo: DemoJob): Promise<Imported> {
  try {
    const [job, ...files] = await Promise.all(
      [`${demo.name}.json`, ...demo.files].map((file) => fetch(`/demo/${file}`)),
    );
    if (![job!, ...files].every(({ ok }) => ok)) return { kind: 'refused', code: 'worker-failed', detail: {} };
    const document = (await job!.json()) as Job;
    const bytes = await Promise.all(files.map((file) => file.arrayBuffer()));
    return storeJob(
      {
        job: { ...document, id: newId() },
        pictures: listFiles(document).map((hash, i) => ({ hash, bytes: bytes[i]! })),
      },
      repository,
    );
  } catch {
    return { kind: 'refused', code: 'worker-failed', detail: {} };
  }
}
