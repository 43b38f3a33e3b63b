import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { Button, Dialog, Portal } from 'react-native-paper';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { isTooFine, megapixelsAt, type OpenPdf, type PageMakeup, type PdfPageFacts } from './pdf-document';

const DPIS = ['150', '300', '600'].map((dpi) => [dpi, `${dpi} dots an inch`] as const);
const MAKEUP: Readonly<Record<PageMakeup, string>> = { lines: 'line work', picture: 'a picture', both: 'line work and pictures', text: 'text only' };
/** Pages that are laid out at a time: a book of 500 is leafed through. */
const LEAF = 24;
const THUMBNAIL_DPI = 24;

interface PdfChooserProps {
  readonly pdf: OpenPdf;
  readonly onChosen: (pages: readonly number[], dpi: number) => void;
  readonly onLeave: () => void;
}

/** The pages of a PDF, to be chosen and brought in at a resolution. */
export function PdfChooser({ pdf, onChosen, onLeave }: PdfChooserProps) {
  const [dpi, setDpi] = useState('300');
  const [first, setFirst] = useState(1);
  const [chosen, setChosen] = useState<ReadonlyMap<number, PdfPageFacts>>(new Map());
  const numbers = Array.from({ length: Math.min(LEAF, pdf.pages - first + 1) }, (_, i) => first + i);
  const toggle = (page: number, facts: PdfPageFacts) => {
    const next = new Map(chosen);
    if (!next.delete(page)) next.set(page, facts);
    setChosen(next);
  };
  const pages = [...chosen].sort(([a], [b]) => a - b);
  const fine = pages.find(([, facts]) => isTooFine(facts, Number(dpi)));
  const sum = pages.reduce((total, [, facts]) => total + megapixelsAt(facts, Number(dpi)), 0);
  return (
    <Portal>
      <Dialog visible onDismiss={onLeave} style={{ maxWidth: 720, width: '94%', alignSelf: 'center', maxHeight: '92%' }} testID="pdf-chooser">
        <Dialog.Title>{`Which pages of “${pdf.name}”?`}</Dialog.Title>
        <Dialog.ScrollArea>
          <ScrollView contentContainerStyle={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10, paddingVertical: 8 }}>
            {numbers.map((page) => <PageCard key={page} pdf={pdf} page={page} chosen={chosen.has(page)} onToggle={(facts) => toggle(page, facts)} />)}
          </ScrollView>
        </Dialog.ScrollArea>
        <Dialog.Content style={{ gap: 8, paddingTop: 10 }}>
          {pdf.pages > LEAF ? (
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
              <Button compact disabled={first === 1} onPress={() => setFirst(Math.max(1, first - LEAF))}>Earlier</Button>
              <Words quiet>{`Pages ${first} to ${first + numbers.length - 1} of ${pdf.pages}`}</Words>
              <Button compact disabled={first + LEAF > pdf.pages} onPress={() => setFirst(first + LEAF)} testID="pdf-later">Later</Button>
            </View>
          ) : null}
          <Choice name="Resolution" value={dpi} options={DPIS} onChange={setDpi} />
          <Words quiet testID="pdf-size">{fine ? `At ${dpi} dots an inch page ${fine[0]} is too large. Take fewer.` : pages.length === 0 ? 'Tap the pages that are wanted.' : `${pages.length === 1 ? 'One page' : `${pages.length} pages`}, ${sum.toFixed(1)} megapixels; about ${Math.ceil(sum * 4)} MB while it is looked at.`}</Words>
        </Dialog.Content>
        <Dialog.Actions>
          <Button onPress={onLeave}>Cancel</Button>
          <Button mode="contained" disabled={pages.length === 0 || fine !== undefined} onPress={() => onChosen(pages.map(([page]) => page), Number(dpi))} testID="pdf-bring">Bring in</Button>
        </Dialog.Actions>
      </Dialog>
    </Portal>
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
  const { data, isError } = useQuery({ queryKey: ['pdf', pdf.name, pdf.pages, page], queryFn: () => lookAt(pdf, page), staleTime: Infinity, gcTime: 0, retry: false });
  const says = data ? `${Math.round(data.facts.width)} × ${Math.round(data.facts.height)} mm, ${MAKEUP[data.facts.makeup]}` : isError ? 'cannot be read' : 'looking …';
  return (
    <Pressable accessibilityRole="checkbox" aria-checked={chosen} accessibilityLabel={`Page ${page}, ${says}`} disabled={!data} onPress={() => data && onToggle(data.facts)} testID={`pdf-page-${page}`}
      style={{ width: 150, padding: 6, gap: 4, borderRadius: 8, borderWidth: chosen ? 2 : 1, borderColor: chosen ? palette.hedge : palette.rule, backgroundColor: chosen ? palette.leaf : palette.paper }}>
      <View style={{ height: 110, alignItems: 'center', justifyContent: 'center' }}>{data ? <img src={data.picture} alt="" style={{ maxWidth: 136, maxHeight: 110, border: `1px solid ${palette.rule}` }} /> : null}</View>
      <Figures style={{ fontSize: 13 }}>{`Page ${page}`}</Figures>
      <Words quiet style={{ fontSize: 12, lineHeight: 15 }}>{says}</Words>
    </Pressable>
  );
}

async function lookAt(pdf: OpenPdf, page: number): Promise<{ readonly facts: PdfPageFacts; readonly picture: string }> {
  const facts = await pdf.facts(page);
  // However large a page claims to be, its thumbnail stays small.
  const dpi = Math.min(THUMBNAIL_DPI, (25.4 * 400) / Math.max(facts.width, facts.height));
  return { facts, picture: (await pdf.paint(page, dpi)).toDataURL('image/jpeg', 0.8) };
}
