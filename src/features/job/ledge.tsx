import { useState, type ReactNode } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { useCover } from '@/bench/use-session';
import { Icon } from '@/ui/icon';
import type { DeskLayout } from '@/ui/layout';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';

interface LedgeProps {
  readonly row: ReactNode;
  readonly cards: ReactNode;
  readonly layout: DeskLayout;
  /** On a phone: whether the cards lie over the bench's lower edge. */
  readonly open: boolean;
  /** Of the window, CSS px. */
  readonly height: number;
  readonly onOpen: (open: boolean) => void;
  /** On a wide screen: how high this step's cards are, CSS px. */
  readonly low: number;
}

/** What the step offers, along the bottom like a pencil ledge: large targets, and cards side by side. */
export function Ledge(props: LedgeProps) {
  return props.layout === 'wide' ? <WideLedge {...props} /> : <PhoneLedge {...props} />;
}

const PULLED_UP = 340;
/** As many columns of cards as there is room for. */
const COLUMNS = 'repeat(auto-fill, minmax(min(296px, 100%), 1fr))';
/** Of a phone's height, for the cards: by themselves, and when a hand asks for more. */
const CARDS_SHARE = { low: 1 / 3, tall: 0.6 };

/** Targets in rows on the left, the cards in columns beside them: a wheel scrolls one way. It can be pulled up. */
function WideLedge({ row, cards, low }: LedgeProps) {
  const palette = usePalette();
  const [pulled, setPulled] = useState(false);
  const height = pulled ? PULLED_UP : low;
  return (
    <View
      role="region"
      aria-label="Ledge"
      style={{
        flexDirection: 'row',
        height,
        backgroundColor: palette.paper,
        borderTopWidth: 1,
        borderTopColor: palette.rule,
      }}>
      {row ? (
        <View
          style={{ width: 396, flexDirection: 'row', flexWrap: 'wrap', alignContent: 'flex-start', gap: 4, padding: 8 }}
          testID="ledge-row">
          {row}
        </View>
      ) : null}
      <div
        tabIndex={0}
        role="group"
        aria-label="Cards"
        data-testid="ledge-cards"
        style={{
          flex: 1,
          minWidth: 0,
          overflow: 'auto',
          background: palette.bench,
          display: 'grid',
          gridTemplateColumns: COLUMNS,
          gridAutoRows: 'max-content',
          alignContent: 'start',
          alignItems: 'start',
          gap: 8,
          padding: 8,
        }}>
        {cards}
      </div>
      <View style={{ backgroundColor: palette.bench }}>
        <RoundButton
          icon={pulled ? 'down' : 'up'}
          name={pulled ? 'Let the ledge down' : 'Pull the ledge up'}
          onPress={() => setPulled(!pulled)}
          testID="pull-ledge"
        />
      </View>
    </View>
  );
}

/** One row of targets, with the lid of the cards at its end. */
function PhoneLedge({ row, cards, layout, open, height, onOpen }: LedgeProps) {
  const palette = usePalette();
  return (
    <View
      role="region"
      aria-label="Ledge"
      style={{ backgroundColor: palette.paper, borderTopWidth: 1, borderTopColor: palette.rule }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <ScrollView
          horizontal
          style={{ flex: 1 }}
          contentContainerStyle={{ paddingHorizontal: 4, paddingVertical: 3 }}
          showsHorizontalScrollIndicator={false}
          testID="ledge-row">
          {row}
        </ScrollView>
        <View style={{ borderLeftWidth: 1, borderLeftColor: palette.rule }}>
          <RoundButton
            icon={open ? 'down' : 'up'}
            name={open ? 'Put the cards away' : 'Show the cards'}
            onPress={() => onOpen(!open)}
            testID="toggle-cards"
            size={46}
          />
        </View>
      </View>
      {open && layout === 'phone' ? <PhoneCards height={height}>{cards}</PhoneCards> : null}
      {open && layout === 'sideways' ? <SidewaysCards height={height}>{cards}</SidewaysCards> : null}
    </View>
  );
}

/** The cards over the bench's lower edge; where there are more than are seen, a hand can have them taller. */
function PhoneCards({ children, height }: Pick<LedgeProps, 'height'> & { children: ReactNode }) {
  const palette = usePalette();
  const cover = useCover('bottom');
  const [tall, setTall] = useState(false);
  const [content, setContent] = useState(0);
  const low = height * CARDS_SHARE.low;
  const name = tall ? 'Less of the cards' : 'More of the cards';
  return (
    // Not wholly opaque: Chromium's software compositor drops a canvas that an opaque scroller lies over.
    <View
      ref={cover}
      style={{
        position: 'absolute',
        left: 0,
        right: 0,
        bottom: '100%',
        borderTopWidth: 1,
        borderTopColor: palette.rule,
        backgroundColor: palette.bench,
        opacity: 0.999,
      }}>
      {tall || content > low ? (
        <Pressable
          accessibilityRole="button"
          accessibilityLabel={name}
          onPress={() => setTall(!tall)}
          testID="cards-height"
          style={{
            height: 24,
            alignItems: 'center',
            justifyContent: 'center',
            backgroundColor: palette.paper,
            borderBottomWidth: 1,
            borderBottomColor: palette.rule,
          }}>
          <Icon name={tall ? 'down' : 'up'} color={palette.quiet} size={18} />
        </Pressable>
      ) : null}
      <ScrollView
        style={{ maxHeight: tall ? height * CARDS_SHARE.tall : low }}
        contentContainerStyle={{ padding: 8, gap: 8 }}
        onContentSizeChange={(_, tallness) => setContent(tallness)}
        testID="ledge-cards">
        {children}
      </ScrollView>
    </View>
  );
}

/** Of a phone held sideways: as wide as a card, and what lies above and below the bench. CSS px. */
const SIDEWAYS = { width: 320, others: 112 };

/** The cards over the bench's right edge: there is width to spare, and no height. */
function SidewaysCards({ children, height }: Pick<LedgeProps, 'height'> & { children: ReactNode }) {
  const palette = usePalette();
  const cover = useCover('right');
  return (
    <View
      ref={cover}
      style={{
        position: 'absolute',
        right: 0,
        bottom: '100%',
        width: SIDEWAYS.width,
        height: height - SIDEWAYS.others,
        borderLeftWidth: 1,
        borderLeftColor: palette.rule,
        backgroundColor: palette.bench,
        opacity: 0.999,
      }}>
      <ScrollView contentContainerStyle={{ padding: 8, gap: 8 }} testID="ledge-cards">
        {children}
      </ScrollView>
    </View>
  );
}
