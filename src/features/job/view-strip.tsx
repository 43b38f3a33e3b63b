import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Image, Pressable, ScrollView, View } from 'react-native';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { orderView } from '@/core/job';
import { formatPlusMinus, type Units } from '@/core/units';
import { openShown, repository, shownPicture, type ShownPicture } from '@/store';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { pictureWorker, type ThumbnailRequest } from '@/workers';
import { useUnits } from './use-units';

function fitInWords(fitted: FittedView | undefined, units: Units): string {
  if (fitted?.isPending) return 'working …';
  return fitted?.sigma === undefined ? 'no scale yet' : formatPlusMinus(fitted.sigma, units);
}

/** The views as small pictures, each with its fit: "±0.3 mm", "no scale yet", a padlock when it is locked. In a column names have two lines; in a narrow one they stand under the pictures. */
export function ViewStrip({ wide, narrow = false }: { wide: boolean; narrow?: boolean }) {
  const palette = usePalette();
  const { session } = useDesk();
  const units = useUnits();
  const views = useJob((state) => state.job.views);
  const derived = useJob((state) => state.derived);
  const current = useSession((state) => state.viewId);
  if (views.length === 0) return null;
  return (
    <ScrollView
      horizontal={!wide}
      style={{
        flexGrow: wide ? 1 : 0,
        backgroundColor: palette.paper,
        borderBottomWidth: wide ? 0 : 1,
        borderBottomColor: palette.rule,
      }}
      contentContainerStyle={{ padding: 6, gap: 6 }}
      role="navigation"
      aria-label="Views"
      showsHorizontalScrollIndicator={false}>
      {views.map((view, index) => {
        const fitted = derived.views.get(view.id);
        const fit = view.lookOnly ? 'only to look at' : fitInWords(fitted, units);
        return (
          <Movable key={view.id} id={view.id} index={index} wide={wide}>
            <Pressable
              accessibilityRole="button"
              aria-current={view.id === current}
              accessibilityLabel={`${view.name}, ${fit}${view.locked ? ', locked' : ''}`}
              onPress={() => session.chooseView(view.id)}
              style={{
                flexDirection: narrow ? 'column' : 'row',
                gap: narrow ? 2 : 8,
                alignItems: narrow ? 'flex-start' : 'center',
                maxWidth: '100%',
                padding: 3,
                paddingRight: 10,
                borderRadius: 6,
                borderWidth: 1,
                borderColor: view.id === current ? palette.hedge : palette.rule,
                backgroundColor: view.id === current ? palette.leaf : palette.paper,
              }}>
              <Thumbnail
                picture={fitted && shownPicture(view, fitted.sheet)}
                of={{ frame: view.frame, direction: view.datum.direction, mirrored: view.mirrored }}
              />
              <View style={{ maxWidth: 120, flexShrink: 1, minWidth: 0 }}>
                <Words lines={wide ? 2 : 1} style={{ fontSize: 13, lineHeight: 17 }}>
                  {`${view.name} `}
                </Words>
                <View style={{ flexDirection: 'row', alignItems: 'center', gap: 3 }}>
                  <Figures lines={1} style={{ fontSize: 12, lineHeight: 15 }} testID="view-fit">
                    {fit}
                  </Figures>
                  {view.locked ? <Icon name="lock" color={palette.ink} size={13} /> : null}
                </View>
              </View>
            </Pressable>
          </Movable>
        );
      })}
    </ScrollView>
  );
}

/** What is dragged within the strip: a view, and no file. */
const DRAGGED = 'text/x-bryony-view';

/** A view that a mouse drags to another place in the strip; fingers and keys use the arrows on its card. */
function Movable({ id, index, wide, children }: { id: string; index: number; wide: boolean; children: ReactNode }) {
  const palette = usePalette();
  const { jobs } = useDesk();
  const [over, setOver] = useState(false);
  const isOurs = (event: React.DragEvent) => event.dataTransfer.types.includes(DRAGGED);
  return (
    <div
      draggable
      data-testid="strip-view"
      style={{
        borderRadius: 6,
        outline: over ? `2px dashed ${palette.hedge}` : undefined,
        flexShrink: 0,
        ...(wide ? { width: '100%' } : {}),
      }}
      onDragStart={(event) => event.dataTransfer.setData(DRAGGED, id)}
      onDragOver={(event) => {
        if (isOurs(event)) {
          event.preventDefault();
          setOver(true);
        }
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        if (!isOurs(event)) return;
        event.preventDefault();
        const dragged = event.dataTransfer.getData(DRAGGED);
        if (dragged !== id) jobs.getState().run(orderView(dragged, index));
      }}>
      {children}
    </div>
  );
}

type Shown = Pick<ThumbnailRequest, 'frame' | 'direction' | 'mirrored'>;

function Thumbnail({ of, picture }: { of: Shown; picture: ShownPicture | undefined }) {
  const palette = usePalette();
  const { data } = useQuery({
    queryKey: ['thumbnail', picture?.key, of],
    queryFn: ({ signal }) => makeThumbnail(of, picture, signal),
    staleTime: Infinity,
  });
  return (
    <View style={{ width: 48, height: 36, borderRadius: 3, overflow: 'hidden', backgroundColor: palette.bench }}>
      {data ? (
        <Image source={{ uri: data }} style={{ width: 48, height: 36 }} resizeMode="cover" accessible={false} />
      ) : null}
    </View>
  );
}

async function makeThumbnail(
  of: Shown,
  picture: ShownPicture | undefined,
  signal: AbortSignal,
): Promise<string | null> {
  if (!picture || !(await openShown(picture, repository, { signal }))) return null;
  const made = await pictureWorker.call('thumbnail', { ...of, hash: picture.key, size: 120 });
  return made.kind === 'done' ? made.value : null;
}
