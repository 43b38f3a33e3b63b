import { useCallback, useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { Button, Dialog, Portal } from 'react-native-paper';
import { grayFrom, judgeStill, rankStills, type RankedStill } from '@/core/raster';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { useEscape } from '@/ui/use-escape';
import type { Incoming } from '../take-picture';
import { pictureOf, type OpenFilm } from './film';

interface FilmChooserProps {
  readonly film: OpenFilm;
  readonly onStills: (stills: readonly Incoming[]) => void;
  readonly onLeave: () => void;
}

interface Candidate {
  readonly time: number;
  readonly picture: string;
}

const CANDIDATES = 24;
const SHOWN = 6;
const JUDGED_WIDTH = 400;
const WHY: Readonly<Record<RankedStill<unknown>['why'], string>> = {
  'sharp-and-receding': 'sharp, its edges recede',
  sharp: 'sharp',
  'receding-but-soft': 'edges recede, but soft',
  soft: 'soft',
};

const timeWords = (time: number) => `${Math.floor(time / 60)}:${(time % 60).toFixed(2).padStart(5, '0')}`;

/** A film to take stills from: slide through it, step by a frame, or let the best ones be found. */
export function FilmChooser({ film, onStills, onLeave }: FilmChooserProps) {
  const sight = useFilm(film);
  const [stills, setStills] = useState<readonly number[]>([]);
  useEscape(onLeave);
  const take = (at: number) =>
    setStills(stills.includes(at) ? stills.filter((other) => other !== at) : [...stills, at].sort((a, b) => a - b));
  const taken =
    stills.length === 0
      ? 'Take the stills that are wanted.'
      : `${stills.length === 1 ? 'One still' : `${stills.length} stills`} taken.`;
  return (
    <Portal>
      <Dialog
        visible
        onDismiss={onLeave}
        style={{ maxWidth: 720, width: '94%', alignSelf: 'center', maxHeight: '94%' }}
        testID="film-chooser">
        <Dialog.ScrollArea style={{ paddingTop: 16 }}>
          <ScrollView contentContainerStyle={{ gap: 8, paddingBottom: 8 }}>
            <FilmScreen film={film} />
            <FilmSlider film={film} {...sight} />
            <FilmButtons
              isTaken={stills.some((still) => Math.abs(still - sight.time) < film.frame / 2)}
              onTake={() => take(sight.time)}
              {...sight}
            />
            {sight.found ? (
              <FoundStills found={sight.found} taken={stills} onChoose={(at) => (void sight.go(at), take(at))} />
            ) : null}
            <Words
              quiet
              style={{
                fontSize: 13.5,
              }}>{`${film.width} × ${film.height} px, ${timeWords(film.duration)} long. ${taken}`}</Words>
          </ScrollView>
        </Dialog.ScrollArea>
        <Dialog.Actions>
          <Button onPress={onLeave}>Cancel</Button>
          <Button
            mode="contained"
            disabled={stills.length === 0}
            onPress={() => void stillsOf(film, stills).then(onStills)}
            testID="bring-stills">
            Bring in
          </Button>
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}

interface FilmSight {
  /** The place that is shown, seconds. */
  readonly time: number;
  /** The best stills; how far the search for them is, 0 to 1. */
  readonly found: readonly RankedStill<Candidate>[] | undefined;
  readonly share: number | undefined;
  go(time: number): Promise<void>;
  find(): Promise<void>;
}

function useFilm(film: OpenFilm): FilmSight {
  const [time, setTime] = useState(0);
  const [found, setFound] = useState<readonly RankedStill<Candidate>[]>();
  const [share, setShare] = useState<number>();
  const go = async (to: number) => {
    const wanted = Math.min(film.duration, Math.max(0, to));
    setTime(wanted);
    await film.goTo(wanted);
  };
  const find = async () => {
    setShare(0);
    setFound(await bestOf(film, setShare));
    setShare(undefined);
    await film.goTo(time);
  };
  return { time, found, share, go, find };
}

/** The film's own element, put where it is looked at. */
function FilmScreen({ film }: { film: OpenFilm }) {
  const show = useCallback(
    (screen: HTMLDivElement | null) => {
      Object.assign(film.element.style, {
        width: '100%',
        maxHeight: '38vh',
        display: 'block',
        background: '#000',
        objectFit: 'contain',
      });
      film.element.setAttribute('aria-label', film.name);
      screen?.append(film.element);
    },
    [film],
  );
  return <div ref={show} data-testid="film" />;
}

function FilmSlider({ film, time, go }: Pick<FilmSight, 'time' | 'go'> & { film: OpenFilm }) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
      <RoundButton icon="left" name="A frame back" onPress={() => void go(time - film.frame)} />
      <input
        type="range"
        aria-label="Place in the film"
        min={0}
        max={film.duration}
        step={film.frame}
        value={time}
        onChange={(event) => void go(Number(event.target.value))}
        style={{ flex: 1, minWidth: 0, height: 44, accentColor: palette.hedge }}
      />
      <RoundButton icon="right" name="A frame on" onPress={() => void go(time + film.frame)} testID="film-on" />
      <Figures testID="film-time">{timeWords(time)}</Figures>
    </View>
  );
}

function FilmButtons({
  isTaken,
  onTake,
  share,
  find,
}: Pick<FilmSight, 'share' | 'find'> & { isTaken: boolean; onTake: () => void }) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
      <Button mode="contained" onPress={onTake} testID="take-still">
        {isTaken ? 'Let this still go' : 'Take this still'}
      </Button>
      <Button mode="outlined" disabled={share !== undefined} onPress={() => void find()} testID="find-stills">
        {share === undefined ? 'Find good ones' : `Looking … ${Math.round(100 * share)} %`}
      </Button>
    </View>
  );
}

/** Stills at these times as pictures on their way in. */
async function stillsOf(film: OpenFilm, times: readonly number[]): Promise<readonly Incoming[]> {
  const incoming: Incoming[] = [];
  for (const at of times) {
    await film.goTo(at);
    const file = await pictureOf(
      film.still(),
      `${film.name.replace(/\.[a-z0-9]+$/i, '')} at ${timeWords(at).replace(':', '.')}.png`,
    );
    if (file) incoming.push({ file, told: { kind: 'photo', moment: Number(at.toFixed(3)) } });
  }
  return incoming;
}

/** The best stills that were found, each with a word why. */
function FoundStills({
  found,
  taken,
  onChoose,
}: {
  found: readonly RankedStill<Candidate>[];
  taken: readonly number[];
  onChoose: (time: number) => void;
}) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {found.map(({ still: { time, picture }, why }) => {
        const isTaken = taken.includes(time);
        return (
          <Pressable
            key={time}
            accessibilityRole="checkbox"
            aria-checked={isTaken}
            accessibilityLabel={`Still at ${timeWords(time)}, ${WHY[why]}`}
            onPress={() => onChoose(time)}
            testID="found-still"
            style={{
              width: 150,
              padding: 4,
              gap: 2,
              borderRadius: 8,
              borderWidth: isTaken ? 2 : 1,
              borderColor: isTaken ? palette.hedge : palette.rule,
              backgroundColor: isTaken ? palette.leaf : palette.paper,
            }}>
            <img src={picture} alt="" style={{ width: '100%', borderRadius: 4 }} />
            <Figures style={{ fontSize: 13 }}>{timeWords(time)}</Figures>
            <Words quiet style={{ fontSize: 12, lineHeight: 15 }}>
              {WHY[why]}
            </Words>
          </Pressable>
        );
      })}
    </View>
  );
}

/** Stills spread over the film, judged and ranked. */
async function bestOf(film: OpenFilm, onShare: (share: number) => void): Promise<readonly RankedStill<Candidate>[]> {
  const judged = [];
  for (let i = 0; i < CANDIDATES; i++) {
    const time = Math.round(((i + 0.5) * film.duration) / CANDIDATES / film.frame) * film.frame;
    if (!(await film.goTo(time))) continue;
    const canvas = film.still(JUDGED_WIDTH);
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    judged.push({
      still: { time, picture: canvas.toDataURL('image/jpeg', 0.7) },
      quality: judgeStill(grayFrom(canvas.width, canvas.height, data)),
    });
    onShare((i + 1) / CANDIDATES);
  }
  return rankStills(judged).slice(0, SHOWN);
}
