import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { OwnThing } from '@/core/shelf';
import { newId, ownShelf } from '@/store';

const OWN = ['own-shelf'];

/** The things that somebody keeps on this device, and keeping or removing one. */
export function useOwnShelf() {
  const client = useQueryClient();
  const onSettled = () => client.invalidateQueries({ queryKey: OWN });
  const { data = [] } = useQuery({ queryKey: OWN, queryFn: () => ownShelf.list() });
  const keep = useMutation({
    mutationFn: (thing: Omit<OwnThing, 'id'> & { readonly id?: string }) =>
      ownShelf.keep({ ...thing, id: thing.id ?? newId() }),
    onSettled,
  });
  const remove = useMutation({ mutationFn: (id: string) => ownShelf.remove(id), onSettled });
  return { own: data, keep, remove };
}
