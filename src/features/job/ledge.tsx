import { useEffect, useState, type ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';

interface LedgeProps {
  readonly row: ReactNode;
  readonly cards: ReactNode;
  readonly wide: boolean;
  /** On a phone: whether the cards lie over the bench's lower edge. */
  readonly open: boolean;
  /** Of the window; the cards take half of it at the most. */
  readonly height: number;
  readonly onOpen: (open: boolean) => void;
  /** On a phone: hears how much of the bench the cards cover, CSS px. */
  readonly onCovered: (covered: number) => void;
  /** On a wide screen: how high this step's cards are, CSS px. */
  readonly low: number;
}

/** What the step offers, along the bottom like a pencil ledge: large targets, and cards side by side. */
export function Ledge(props: LedgeProps) {
  return props.wide ? <WideLedge {...props} /> : <PhoneLedge {...props} />;
}

const PULLED_UP = 340;
/** As many columns of cards as there is room for. */
const COLUMNS = 'repeat(auto-fill, minmax(min(296px, 100%), 1fr))';
/** Of a phone's height, for the cards at the most. */
export const CARDS_SHARE = 0.5;

/** Targets in rows on the left, the cards in columns beside them: a wheel scrolls one way. It can be pulled up. */
function WideLedge({ row, cards, low }: LedgeProps) {
  const palette = usePalette();
  const [pulled, setPulled] = useState(false);
  const height = pulled ? PULLED_UP : low;
  return (
    <View role="region" aria-label="Ledge" style={{ flexDirection: 'row', height, backgroundColor: palette.paper, borderTopWidth: 1, borderTopColor: palette.rule }}>
      {row ? <View style={{ width: 396, flexDirection: 'row', flexWrap: 'wrap', alignContent: 'flex-start', gap: 4, padding: 8 }} testID="ledge-row">{row}</View> : null}
      <div tabIndex={0} role="group" aria-label="Cards" data-testid="ledge-cards" style={{ flex: 1, minWidth: 0, overflow: 'auto', background: palette.bench, display: 'grid', gridTemplateColumns: COLUMNS, gridAutoRows: 'max-content', alignContent: 'start', alignItems: 'start', gap: 8, padding: 8 }}>{cards}</div>
      <View style={{ backgroundColor: palette.bench }}>
        <RoundButton icon={pulled ? 'down' : 'up'} name={pulled ? 'Let the ledge down' : 'Pull the ledge up'} onPress={() => setPulled(!pulled)} testID="pull-ledge" />
      </View>
    </View>
  );
}

/** One row of targets, with the lid of the cards at its end. */
function PhoneLedge({ row, cards, open, height, onOpen, onCovered }: LedgeProps) {
  const palette = usePalette();
  return (
    <View role="region" aria-label="Ledge" style={{ backgroundColor: palette.paper, borderTopWidth: 1, borderTopColor: palette.rule }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <ScrollView horizontal style={{ flex: 1 }} contentContainerStyle={{ paddingHorizontal: 4, paddingVertical: 3 }} showsHorizontalScrollIndicator={false} testID="ledge-row">{row}</ScrollView>
        <View style={{ borderLeftWidth: 1, borderLeftColor: palette.rule }}>
          <RoundButton icon={open ? 'down' : 'up'} name={open ? 'Put the cards away' : 'Show the cards'} onPress={() => onOpen(!open)} testID="toggle-cards" size={46} />
        </View>
      </View>
      {open ? <PhoneCards height={height} onCovered={onCovered}>{cards}</PhoneCards> : null}
    </View>
  );
}

function PhoneCards({ children, height, onCovered }: Pick<LedgeProps, 'height' | 'onCovered'> & { children: ReactNode }) {
  const palette = usePalette();
  useEffect(() => () => onCovered(0), [onCovered]);
  return (
    // Not wholly opaque: Chromium's software compositor drops a canvas that an opaque scroller lies over.
    <View style={{ position: 'absolute', left: 0, right: 0, bottom: '100%', borderTopWidth: 1, borderTopColor: palette.rule, opacity: 0.999 }} onLayout={({ nativeEvent }) => onCovered(nativeEvent.layout.height)}>
      <ScrollView style={{ maxHeight: height * CARDS_SHARE, backgroundColor: palette.bench }} contentContainerStyle={{ padding: 8, gap: 8 }} testID="ledge-cards">{children}</ScrollView>
    </View>
  );
}
