import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { toolOf } from '@/bench/tools';
import { useDesk, useFitted, useJob, useSession } from '@/bench/use-session';
import type { FileSummary, FileUnit } from '@/core/formats';
import { MILLIMETRES } from '@/core/units';
import { formatLength, type Units } from '@/core/units';
import { Card } from '@/ui/card';
import { Icon } from '@/ui/icon';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import type { DrawingFormat } from '@/workers';
import { BundleCard } from './bundle-card';
import { safeFileName, saveFile } from './download';
import { ExtentWords } from './extent-words';
import { OpeningsCard } from './openings-card';
import { PartsCard } from './parts-card';
import { PictureCard } from './picture-card';
import { SpaceCard } from './space-card';
import { useWrittenFile, type WrittenFile } from './use-written-file';

const FORMATS = [
  ['dxf', 'DXF'],
  ['svg', 'SVG'],
] as const;
const UNITS = [
  ['mm', 'Millimetres'],
  ['inch', 'Inches'],
] as const;
const WHAT = [
  ['all', 'All that is shown'],
  ['chosen', 'Only what is chosen'],
] as const;
const MEDIA: Readonly<Record<DrawingFormat, string>> = { dxf: 'image/vnd.dxf', svg: 'image/svg+xml' };

/** What leaves: the drawing as a file that was read back first, and the whole job as a bundle. */
export function HandoverPanel() {
  const { jobs } = useDesk();
  const name = useJob((state) => state.job.name);
  const tool = useSession((state) => state.tool);
  const chosen = toolOf(tool).chosen?.(tool.state) ?? [];
  const [fileName, setFileName] = useState(safeFileName(name));
  const [format, setFormat] = useState<DrawingFormat>('dxf');
  const [unit, setUnit] = useState<FileUnit>('mm');
  const [what, setWhat] = useState<'all' | 'chosen'>('all');
  const written = useWrittenFile(format, unit, what === 'chosen' ? chosen : undefined);
  const palette = usePalette();
  const save = () => {
    if (written.kind === 'ready') saveFile(`${safeFileName(fileName)}.${format}`, written.file.text, MEDIA[format]);
  };
  return (
    <>
      <Card>
        <TextInput
          mode="outlined"
          dense
          label="File name"
          accessibilityLabel="File name"
          value={fileName}
          onChangeText={setFileName}
          style={{ height: 44, backgroundColor: palette.paper }}
          testID="file-name"
        />
        <Choice name="Format" value={format} options={FORMATS} onChange={setFormat} />
        <Choice name="Unit of the file" value={unit} options={UNITS} onChange={setUnit} />
        {chosen.length > 0 ? <Choice name="What leaves" value={what} options={WHAT} onChange={setWhat} /> : null}
      </Card>
      <Card testID="read-back">
        <Verdict written={written} />
        <Button
          mode="contained"
          icon="handover"
          disabled={written.kind !== 'ready' || !written.agrees}
          onPress={save}
          testID="save-file">{`Save ${format.toUpperCase()}`}</Button>
        {written.kind === 'ready' ? <ReadBack written={written} unit={unit} /> : null}
        {written.kind === 'ready' ? <AxesWords /> : null}
        {written.kind === 'ready' ? <ExtentWords only={what === 'chosen' ? chosen : undefined} /> : null}
      </Card>
      <SpaceCard fileName={fileName} unit={unit} />
      <PartsCard fileName={fileName} />
      <OpeningsCard fileName={fileName} />
      <PictureCard fileName={fileName} />
      <BundleCard fileName={fileName} job={() => jobs.getState().job} />
    </>
  );
}

/** What the file's zero and axes are, and where they are set. */
function AxesWords() {
  const fitted = useFitted();
  return (
    <Words
      quiet
      style={{ fontSize: 13, paddingTop: 4 }}
      testID="axes">{`Zero and axes of the file are those of the drawing: across runs to the right and up runs up${fitted?.view.mirrored ? ', as seen from behind' : ''}. Zero under Fit moves them.`}</Words>
  );
}

type Ready = Extract<WrittenFile, { kind: 'ready' }>;

/** Whether the file may leave. */
function Verdict({ written }: { written: WrittenFile }) {
  const palette = usePalette();
  if (written.kind === 'waiting') return <Words quiet>Writing the file and reading it back…</Words>;
  if (written.kind === 'refused') return <Words testID="handover-says">{sentenceFor(written.code)}</Words>;
  return (
    <View style={{ flexDirection: 'row', gap: 6, alignItems: 'center' }}>
      <Icon name={written.agrees ? 'tick' : 'warn'} color={written.agrees ? palette.hedge : palette.berry} />
      <Words testID="handover-says" style={{ flex: 1 }}>
        {verdictOf(written)}
      </Words>
    </View>
  );
}

/** What the job says beside what was read back from the file. */
function ReadBack({ written, unit }: { written: Ready; unit: FileUnit }) {
  const units: Units = unit === 'mm' ? MILLIMETRES : { style: 'inch', denominator: 16 };
  const {
    job,
    file: { readBack },
  } = written;
  const rows: readonly (readonly [string, (summary: FileSummary) => string, string])[] = [
    ['Unit', (s) => (s.unit === undefined ? 'not said' : s.unit === 'mm' ? 'mm' : 'inch'), 'unit'],
    ['Width', (s) => formatLength(s.width, units), 'width'],
    ['Height', (s) => formatLength(s.height, units), 'height'],
    ['Left edge at', (s) => formatLength(s.corner[0], units), 'across'],
    ['Lower edge at', (s) => formatLength(s.corner[1], units), 'up'],
    ['Closed outlines', (s) => String(s.closed), 'closed'],
    ['Open ends', (s) => String(s.openEnds), 'open'],
  ];
  return (
    <View style={{ gap: 2 }}>
      <View style={{ flexDirection: 'row', gap: 6 }}>
        <Words quiet style={{ flex: 1.2, fontSize: 13 }}>
          Read back
        </Words>
        <Words quiet style={{ flex: 1, fontSize: 13, textAlign: 'right' }}>
          Job
        </Words>
        <Words quiet style={{ flex: 1, fontSize: 13, textAlign: 'right' }}>
          File
        </Words>
      </View>
      {rows.map(([label, show, id]) => (
        <View key={id} style={{ flexDirection: 'row', gap: 6 }}>
          <Words style={{ flex: 1.2 }}>{label}</Words>
          <Figures style={{ flex: 1, textAlign: 'right' }}>{show(job)}</Figures>
          <Figures style={{ flex: 1, textAlign: 'right' }} testID={`read-back-${id}`}>
            {show(readBack)}
          </Figures>
        </View>
      ))}
    </View>
  );
}

function verdictOf({ agrees, file: { readBack }, meantEnds }: Ready): string {
  if (!agrees) return 'The file does not say what the job says, so it is held back. Try the other format.';
  if (readBack.openEnds > meantEnds)
    return 'The file agrees with the job. Some outlines are open: see Inspect under Trace.';
  return meantEnds > 0
    ? 'The file agrees with the job. What is open are swings and sills.'
    : 'The file agrees with the job.';
}
