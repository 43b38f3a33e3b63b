import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { Button, Dialog, Portal } from 'react-native-paper';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { useEscape } from '@/ui/use-escape';
import type { Incoming } from '../take-picture';
import { openCamera, watchTilt, type LivePicture } from './camera';
import { findCard, lookAtFrame, type CardSeen, type FrameFacts } from './frame-facts';
import { FAIR_TILT, GOOD_TILT, sizeOfTilt, type ShootingWay, type Tilt } from './tilt';

interface CameraDialogProps {
  readonly onTaken: (incoming: Incoming) => void;
  /** Photos by the device's own camera program. */
  readonly onFiles: (files: readonly File[]) => void;
  readonly onLeave: () => void;
}

const WAYS: readonly (readonly [ShootingWay, string])[] = [
  ['above', 'Lies flat'],
  ['front', 'Stands upright'],
];
const LOOK_MS = 600;

/** The camera with a shooting guide: how square-on it is held, how much of the frame is filled, how sharp it is, how far away a card says it is. */
export function CameraDialog({ onTaken, onFiles, onLeave }: CameraDialogProps) {
  const screen = useRef<HTMLDivElement>(null);
  const own = useRef<HTMLInputElement>(null);
  const [live, setLive] = useState<LivePicture>();
  const [way, setWay] = useState<ShootingWay>('above');
  const held = useTilt(way);
  const facts = useFrameFacts(live);
  const [card, setCard] = useState<CardSeen | 'none'>();
  useEscape(onLeave);
  useLive(screen, setLive);
  const take = async () => {
    const file = live && (await pictureOf(live));
    if (!file) return;
    const tilt =
      held && !held.simulated && way === 'above'
        ? ([Number(held.tilt.across.toFixed(2)), Number(held.tilt.up.toFixed(2))] as const)
        : undefined;
    onTaken({ file, told: { kind: 'photo', tilt } });
  };
  return (
    <Portal>
      <Dialog
        visible
        onDismiss={onLeave}
        style={{ maxWidth: 720, width: '96%', alignSelf: 'center', maxHeight: '96%' }}
        testID="camera-dialog">
        <Dialog.Content style={{ gap: 8, paddingTop: 14 }}>
          <div
            ref={screen}
            onClick={(event) => live && setCard(cardUnder(event, live) ?? 'none')}
            role="img"
            aria-label="Live picture; tap on a bank card in it to learn how far away it is"
            style={{ position: 'relative', lineHeight: 0 }}>
            {held ? <Bubble tilt={held.tilt} /> : null}
          </div>
          <Choice name="How the thing stands" value={way} options={WAYS} onChange={setWay} />
          <CameraSays live={live} held={held} advice={adviceFor(held?.tilt, facts, card)} />
          <input
            ref={own}
            type="file"
            accept="image/*"
            capture="environment"
            hidden
            aria-label="Photo from the device’s camera"
            onChange={(event) => event.target.files?.length && onFiles([...event.target.files])}
          />
        </Dialog.Content>
        <Dialog.Actions>
          <Button onPress={onLeave}>Cancel</Button>
          <Button onPress={() => own.current?.click()} testID="own-camera">
            The device’s camera
          </Button>
          <Button mode="contained" icon="camera" disabled={!live} onPress={() => void take()} testID="take-photo">
            Take it
          </Button>
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}

/** The card in the live picture that was tapped on. */
function cardUnder(
  { currentTarget, clientX, clientY }: React.MouseEvent<HTMLDivElement>,
  live: LivePicture,
): CardSeen | undefined {
  const box = currentTarget.getBoundingClientRect();
  return findCard(live, [(clientX - box.left) / box.width, (clientY - box.top) / box.height]);
}

/** What cannot be measured here, and what to do better. */
function CameraSays({
  live,
  held,
  advice,
}: {
  live: LivePicture | undefined;
  held: Held | undefined;
  advice: readonly string[];
}) {
  return (
    <View style={{ gap: 2 }} role="status" testID="camera-says">
      {live?.simulated ? (
        <Words quiet style={{ fontSize: 13 }}>
          There is no camera here that this page may use: this one is simulated. The device’s own camera still works.
        </Words>
      ) : null}
      {held?.simulated ? (
        <Words quiet style={{ fontSize: 13 }}>
          This device has no tilt sensors: the bubble is simulated, and is not kept.
        </Words>
      ) : null}
      {advice.map((sentence) => (
        <Words key={sentence} style={{ fontSize: 14.5 }}>
          {sentence}
        </Words>
      ))}
    </View>
  );
}

/** How the camera is held now. */
interface Held {
  readonly tilt: Tilt;
  readonly simulated: boolean;
}

function useTilt(way: ShootingWay): Held | undefined {
  const [held, setHeld] = useState<Held>();
  useEffect(() => watchTilt(way, (tilt, simulated) => setHeld({ tilt, simulated })), [way]);
  return held;
}

/** What is seen in the frame, looked at again and again. */
function useFrameFacts(live: LivePicture | undefined): FrameFacts | undefined {
  const [facts, setFacts] = useState<FrameFacts>();
  useEffect(() => {
    if (!live) return;
    const timer = setInterval(() => setFacts(lookAtFrame(live)), LOOK_MS);
    return () => clearInterval(timer);
  }, [live]);
  return facts;
}

/** Puts the live picture on the page, and lets the camera go with the dialog. */
function useLive(screen: React.RefObject<HTMLDivElement | null>, onLive: (live: LivePicture) => void): void {
  useEffect(() => {
    let gone = false;
    let open: LivePicture | undefined;
    void openCamera().then((live) => {
      open = live;
      if (gone) return live.close();
      Object.assign(live.element.style, {
        width: '100%',
        maxHeight: '46vh',
        objectFit: 'contain',
        background: '#000',
        borderRadius: '6px',
      });
      screen.current?.prepend(live.element);
      onLive(live);
    });
    return () => {
      gone = true;
      open?.close();
    };
  }, [screen, onLive]);
}

/** What to do better, the most important first; what is fine is said too. */
function adviceFor(
  tilt: Tilt | undefined,
  facts: FrameFacts | undefined,
  card: CardSeen | 'none' | undefined,
): readonly string[] {
  const says: string[] = [];
  if (tilt) {
    const size = sizeOfTilt(tilt);
    says.push(
      size <= GOOD_TILT
        ? `Square-on: ${size.toFixed(1)}° off.`
        : `${size.toFixed(1)}° out of square-on${size > FAIR_TILT ? ': hold it straighter' : ''}. Move the bubble into its ring.`,
    );
  }
  if (facts) {
    if (facts.fill !== undefined)
      says.push(
        facts.fill < 0.5
          ? `The thing fills ${Math.round(100 * facts.fill)} % of the frame: go closer.`
          : facts.fill > 0.97
            ? 'The thing touches the rim of the frame: go back a little.'
            : `The thing fills ${Math.round(100 * facts.fill)} % of the frame: good.`,
      );
    if (facts.sharpness < 0.32) says.push('It looks blurred: hold still, or let it focus.');
  }
  if (card === 'none') says.push('No card was found there. Tap inside one that lies wholly in the frame.');
  else if (card)
    says.push(
      `About ${Math.round(card.distance / 10)} cm away; a pixel is ${card.perPixel.toFixed(2)} mm.${card.slant > 0.03 ? ' The card looks slanted.' : ''}`,
    );
  else says.push('Tap on a bank card in the picture to learn how far away it is.');
  return says;
}

const RING = 44;

/** A bubble in its ring, both ways at once: in the middle it is square-on. */
function Bubble({ tilt: { across, up } }: { tilt: Tilt }) {
  const palette = usePalette();
  const away = Math.hypot(across, up);
  const reach = Math.min(1, away / 8) / Math.max(away, 1e-6);
  const good = away <= GOOD_TILT;
  return (
    <svg
      viewBox="-60 -60 120 120"
      width={120}
      height={120}
      aria-hidden
      style={{ position: 'absolute', right: 8, bottom: 8 }}>
      <circle r={RING + 8} fill={palette.paper} fillOpacity={0.75} stroke={palette.ink} strokeWidth={1} />
      <circle r={(RING * GOOD_TILT) / 8 + 9} fill="none" stroke={palette.ink} strokeWidth={1.4} />
      <circle
        cx={across * reach * RING}
        cy={up * reach * RING}
        r={8}
        fill={good ? palette.hedge : palette.straw}
        stroke={palette.ink}
        strokeWidth={1}
      />
    </svg>
  );
}

async function pictureOf(live: LivePicture): Promise<File | undefined> {
  const [width, height] = live.size();
  if (!(width > 0)) return undefined;
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height });
  canvas.getContext('2d')!.drawImage(live.source, 0, 0, width, height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.95));
  return blob
    ? new File([blob], `Photo ${new Date().toISOString().slice(0, 19).replace(/[T:]/g, '.')}.jpg`, {
        type: 'image/jpeg',
      })
    : undefined;
}
