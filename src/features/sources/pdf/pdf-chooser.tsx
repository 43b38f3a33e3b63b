import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { Button, Dialog, Portal } from 'react-native-paper';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { useEscape } from '@/ui/use-escape';
import { PagePartFrame, type PagePart } from './page-part';
import { isTooFine, megapixelsAt, type OpenPdf, type PageMakeup, type PdfPageFacts } from './pdf-document';

const DPIS = ['150', '300', '600', '1200'].map((dpi) => [dpi, `${dpi} dots an inch`] as const);
const MAKEUP: Readonly<Record<PageMakeup, string>> = {
  lines: 'line work',
  picture: 'a picture',
  both: 'line work and pictures',
  text: 'text only',
};
/** Pages that are laid out at a time: a book of 500 is leafed through. */
const LEAF = 24;
/** Longer side of a thumbnail, and of the page that a part is framed on, px. */
const THUMBNAIL_SIDE = 280;
const FRAMED_SIDE = 1100;

/** Which pages come in, and how. */
export interface WantedPages {
  readonly pages: readonly number[];
  readonly dpi: number;
  /** Only this part of the one page. */
  readonly part?: PagePart | undefined;
  /** Their vector lines come along as reference geometry. */
  readonly lines: boolean;
}

interface PdfChooserProps {
  readonly pdf: OpenPdf;
  readonly onChosen: (wanted: WantedPages) => void;
  readonly onLeave: () => void;
}

/** The pages of a PDF, to be chosen and brought in at a resolution. */
export function PdfChooser({ pdf, onChosen, onLeave }: PdfChooserProps) {
  const choice = useChoice();
  const [first, setFirst] = useState(1);
  useEscape(onLeave);
  const { pages, single, part, dpi, wanted, framing } = choice;
  const numbers = Array.from({ length: Math.min(LEAF, pdf.pages - first + 1) }, (_, i) => first + i);
  return (
    <Portal>
      <Dialog
        visible
        onDismiss={onLeave}
        style={{ maxWidth: 720, width: '94%', alignSelf: 'center', maxHeight: '92%' }}
        testID="pdf-chooser">
        <Dialog.Title>{`Which pages of “${pdf.name}”?`}</Dialog.Title>
        <Dialog.ScrollArea>
          <ScrollView contentContainerStyle={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10, paddingVertical: 8 }}>
            {framing && single !== undefined ? (
              <FramedPage pdf={pdf} page={single} part={part} onPart={choice.setPart} />
            ) : (
              numbers.map((page) => (
                <PageCard
                  key={page}
                  pdf={pdf}
                  page={page}
                  chosen={pages.some(([other]) => other === page)}
                  onToggle={(facts) => choice.toggle(page, facts)}
                />
              ))
            )}
          </ScrollView>
        </Dialog.ScrollArea>
        <Dialog.Content style={{ gap: 8, paddingTop: 10 }}>
          {pdf.pages > LEAF ? <Leaves pages={pdf.pages} first={first} onFirst={setFirst} /> : null}
          <ChoiceButtons {...choice} />
          <Choice name="Resolution" value={dpi} options={DPIS} onChange={choice.setDpi} />
          <Words quiet testID="pdf-size">
            {sizeWords(choice)}
          </Words>
        </Dialog.Content>
        <Dialog.Actions>
          <Button onPress={onLeave}>Cancel</Button>
          <Button mode="contained" disabled={!wanted} onPress={() => wanted && onChosen(wanted)} testID="pdf-bring">
            Bring in
          </Button>
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}

type ChosenPage = readonly [number, PdfPageFacts];

/** What is chosen of a PDF so far. */
interface PageChoice {
  readonly pages: readonly ChosenPage[];
  /** The one page where no other is chosen. */
  readonly single: number | undefined;
  readonly dpi: string;
  /** Whether a part of the page is framed, and which. */
  readonly framing: boolean;
  readonly part: PagePart | undefined;
  /** Whether lines come along, where there are any. */
  readonly lines: boolean;
  readonly isDrawn: boolean;
  /** A page that is too large at this resolution. */
  readonly tooFine: ChosenPage | undefined;
  /** What is brought in; undefined until that can be done. */
  readonly wanted: WantedPages | undefined;
  setDpi(dpi: string): void;
  setPart(part: PagePart | undefined): void;
  setFraming(framing: boolean): void;
  setLines(lines: boolean): void;
  toggle(page: number, facts: PdfPageFacts): void;
}

function useChoice(): PageChoice {
  const [dpi, setDpi] = useState('300');
  const [part, setPart] = useState<PagePart>();
  const [framing, setFramed] = useState(false);
  const [lines, setLines] = useState(true);
  const [chosen, setChosen] = useState<ReadonlyMap<number, PdfPageFacts>>(new Map());
  const setFraming = (to: boolean) => {
    setFramed(to);
    setPart(undefined);
  };
  const toggle = (page: number, facts: PdfPageFacts) => {
    const next = new Map(chosen);
    if (!next.delete(page)) next.set(page, facts);
    setChosen(next);
    setFraming(false);
  };
  const pages = [...chosen].sort(([a], [b]) => a - b);
  const tooFine = pages.find(([, facts]) => isTooFine(facts, Number(dpi), part));
  const isDrawn = pages.some(([, { makeup }]) => makeup === 'lines' || makeup === 'both');
  const isReady = pages.length > 0 && !tooFine && !(framing && !part);
  const wanted = isReady
    ? { pages: pages.map(([page]) => page), dpi: Number(dpi), part, lines: lines && isDrawn && !framing }
    : undefined;
  return {
    pages,
    single: pages.length === 1 ? pages[0]![0] : undefined,
    dpi,
    framing,
    part,
    lines,
    isDrawn,
    tooFine,
    wanted,
    setDpi,
    setPart,
    setFraming,
    setLines,
    toggle,
  };
}

function sizeWords({ pages, dpi, part, framing, tooFine }: PageChoice): string {
  if (tooFine) return `At ${dpi} dots an inch page ${tooFine[0]} is too large. Take fewer.`;
  if (framing && !part) return 'Draw a frame around the part that is wanted.';
  if (pages.length === 0) return 'Tap the pages that are wanted.';
  const sum = pages.reduce((total, [, facts]) => total + megapixelsAt(facts, Number(dpi), part), 0);
  return `${pages.length === 1 ? 'One page' : `${pages.length} pages`}, ${sum.toFixed(1)} megapixels; about ${Math.ceil(sum * 4)} MB while it is looked at.`;
}

/** To leaf through a long document. */
function Leaves({ pages, first, onFirst }: { pages: number; first: number; onFirst: (first: number) => void }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <Button compact disabled={first === 1} onPress={() => onFirst(Math.max(1, first - LEAF))}>
        Earlier
      </Button>
      <Words quiet>{`Pages ${first} to ${Math.min(pages, first + LEAF - 1)} of ${pages}`}</Words>
      <Button compact disabled={first + LEAF > pages} onPress={() => onFirst(first + LEAF)} testID="pdf-later">
        Later
      </Button>
    </View>
  );
}

function ChoiceButtons({ single, framing, isDrawn, lines, setFraming, setLines }: PageChoice) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
      {single !== undefined ? (
        <Button compact mode="outlined" onPress={() => setFraming(!framing)} testID="frame-part">
          {framing ? 'All of the page' : 'Only a part of it'}
        </Button>
      ) : null}
      {isDrawn && !framing ? (
        <Button compact mode={lines ? 'contained' : 'outlined'} onPress={() => setLines(!lines)} testID="keep-lines">
          {lines ? 'Its lines come along' : 'Take its lines along'}
        </Button>
      ) : null}
    </View>
  );
}

/** One page, larger, to frame a part of. */
function FramedPage({
  pdf,
  page,
  part,
  onPart,
}: {
  pdf: OpenPdf;
  page: number;
  part: PagePart | undefined;
  onPart: (part: PagePart | undefined) => void;
}) {
  const { data } = useQuery({
    queryKey: ['pdf-large', pdf.name, page],
    queryFn: () => lookAt(pdf, page, FRAMED_SIDE),
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  return data ? (
    <PagePartFrame picture={data.picture} part={part} onPart={onPart} />
  ) : (
    <Words quiet>Painting the page …</Words>
  );
}

interface PageCardProps {
  readonly pdf: OpenPdf;
  readonly page: number;
  readonly chosen: boolean;
  readonly onToggle: (facts: PdfPageFacts) => void;
}

function PageCard({ pdf, page, chosen, onToggle }: PageCardProps) {
  const palette = usePalette();
  const { data, isError } = useQuery({
    queryKey: ['pdf', pdf.name, pdf.pages, page],
    queryFn: () => lookAt(pdf, page),
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const says = data
    ? `${Math.round(data.facts.width)} × ${Math.round(data.facts.height)} mm, ${MAKEUP[data.facts.makeup]}`
    : isError
      ? 'cannot be read'
      : 'looking …';
  return (
    <Pressable
      accessibilityRole="checkbox"
      aria-checked={chosen}
      accessibilityLabel={`Page ${page}, ${says}`}
      disabled={!data}
      onPress={() => data && onToggle(data.facts)}
      testID={`pdf-page-${page}`}
      style={{
        width: 150,
        padding: 6,
        gap: 4,
        borderRadius: 8,
        borderWidth: chosen ? 2 : 1,
        borderColor: chosen ? palette.hedge : palette.rule,
        backgroundColor: chosen ? palette.leaf : palette.paper,
      }}>
      <View style={{ height: 110, alignItems: 'center', justifyContent: 'center' }}>
        {data ? (
          <img
            src={data.picture}
            alt=""
            style={{ maxWidth: 136, maxHeight: 110, border: `1px solid ${palette.rule}` }}
          />
        ) : null}
      </View>
      <Figures style={{ fontSize: 13 }}>{`Page ${page}`}</Figures>
      <Words quiet style={{ fontSize: 12, lineHeight: 15 }}>
        {says}
      </Words>
    </Pressable>
  );
}

async function lookAt(
  pdf: OpenPdf,
  page: number,
  side = THUMBNAIL_SIDE,
): Promise<{ readonly facts: PdfPageFacts; readonly picture: string }> {
  const facts = await pdf.facts(page);
  // However large a page claims to be, its thumbnail stays small.
  const dpi = (25.4 * side) / Math.max(facts.width, facts.height);
  return { facts, picture: (await pdf.paint(page, dpi)).toDataURL('image/jpeg', 0.8) };
}
