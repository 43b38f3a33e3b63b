import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { createDeriver } from '@/core/derive';
import { createJob, type Job } from '@/core/job';
import { jobCardOf, newId, openBundle, repository, storeJob, type Imported } from '@/store';

const JOBS = ['jobs'];

export function useJobCards() {
  return useQuery({ queryKey: JOBS, queryFn: () => repository.listCards() });
}

/** What can be done with jobs from the list. Each refreshes the list when it is through. */
export function useJobActions() {
  const client = useQueryClient();
  const refresh = () => client.invalidateQueries({ queryKey: JOBS });
  const create = useMutation({
    mutationFn: async (name: string) => {
      const job = createJob(newId(), name, new Date());
      await repository.create(job, jobCardOf(job, createDeriver()(job), new Date(), undefined));
      return job.id;
    },
    onSuccess: refresh,
  });
  const rename = useMutation({ mutationFn: ({ id, name }: { id: string; name: string }) => changeJob(id, (job) => ({ ...job, name })), onSuccess: refresh });
  const duplicate = useMutation({
    mutationFn: async (id: string) => {
      const opened = await repository.open(id);
      if (!opened) return;
      const cards = await repository.listCards();
      const copy: Job = { ...opened.history.job, id: newId(), name: `${opened.history.job.name} (copy)`.slice(0, 200) };
      await repository.create(copy, jobCardOf(copy, createDeriver()(copy), new Date(), cards.find((card) => card.id === id)?.thumbnail));
    },
    onSuccess: refresh,
  });
  const remove = useMutation({ mutationFn: (id: string) => repository.remove(id), onSuccess: refresh });
  const openFile = useMutation({ mutationFn: async (file: File): Promise<Imported> => openBundle(await file.arrayBuffer(), repository), onSuccess: refresh });
  const openDemo = useMutation({ mutationFn: openDemoJob, onSuccess: refresh });
  return { create, rename, duplicate, remove, openFile, openDemo, refresh };
}

/** Renames without opening: the snapshot is replaced, the history kept as it is. */
async function changeJob(id: string, change: (job: Job) => Job): Promise<void> {
  const opened = await repository.open(id);
  if (!opened) return;
  const job = change(opened.history.job);
  const card = (await repository.listCards()).find((other) => other.id === id);
  await repository.save({
    history: { ...opened.history, job }, storedEntries: opened.history.entries.length, snapshotAt: Infinity,
    card: { ...jobCardOf(job, createDeriver()(job), new Date(), card?.thumbnail) }, draft: opened.draft ?? '',
  });
}

export interface DemoJob {
  readonly name: string;
  readonly title: string;
  readonly says: string;
  readonly picture: string;
}

export const DEMO_JOBS: readonly DemoJob[] = [
  { name: 'blade-start', title: 'Pruner blade: start here', says: 'A worn blade beside a card and a rule. Set the scale, check it, trace it, cut it: four short steps.', picture: 'blade' },
  { name: 'blade-finished', title: 'Pruner blade: finished', says: 'The same photo with its scale, a check, the traced outline and the holes.', picture: 'blade' },
  { name: 'blade-slanted', title: 'Pruner blade: slanted', says: 'Photographed from aside, through a lens that bows. Card, rule and a straight edge put it right; one size from a message does not belong.', picture: 'blade-slanted' },
  { name: 'nest-box', title: 'Nest box: a stretched print', says: 'A drawing that was printed “to fit the page” and scanned askew. Its printed sizes find the stretch, and one of them is wrong.', picture: 'nest-box' },
];

async function openDemoJob(demo: DemoJob): Promise<Imported> {
  try {
    const [job, picture] = await Promise.all([fetch(`/demo/${demo.name}.json`), fetch(`/demo/${demo.picture}.jpg`)]);
    if (!job.ok || !picture.ok) return { kind: 'refused', code: 'worker-failed', detail: {} };
    const document = (await job.json()) as Job;
    return storeJob({ job: { ...document, id: newId() }, pictures: [{ hash: document.sheets[0]!.picture, bytes: await picture.arrayBuffer() }] }, repository);
  } catch {
    return { kind: 'refused', code: 'worker-failed', detail: {} };
  }
}
