import { Image, Pressable, View } from 'react-native';
import { usePalette } from '@/ui/palette';
import { Title, Words } from '@/ui/text';
import { DEMO_JOBS, type DemoJob } from './use-jobs';

interface DemosProps {
  /** Somebody has jobs already: the demos step back. */
  readonly small: boolean;
  readonly opening: string | undefined;
  readonly onOpen: (demo: DemoJob) => void;
}

export function Demos({ small, opening, onOpen }: DemosProps) {
  return (
    <View style={{ gap: 10 }}>
      <Title level={2}>{small ? 'Demos' : 'Try it on a demo'}</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: small ? 8 : 14 }}>
        {DEMO_JOBS.map((demo) => (
          <DemoCard
            key={demo.name}
            demo={demo}
            small={small}
            isOpening={opening === demo.name}
            onOpen={() => onOpen(demo)}
          />
        ))}
      </View>
    </View>
  );
}

/** A demo by its picture: all of it opens it. */
function DemoCard({
  demo,
  small,
  isOpening,
  onOpen,
}: {
  demo: DemoJob;
  small: boolean;
  isOpening: boolean;
  onOpen: () => void;
}) {
  const palette = usePalette();
  const [width, height] = small ? [56, 42] : [104, 78];
  return (
    <Pressable
      testID={`demo-${demo.name}`}
      accessibilityRole="button"
      aria-busy={isOpening}
      onPress={onOpen}
      style={{
        width: small ? 244 : 340,
        maxWidth: '100%',
        flexDirection: 'row',
        gap: 12,
        padding: small ? 6 : 10,
        backgroundColor: palette.paper,
        borderRadius: 10,
        borderWidth: 1,
        borderColor: isOpening ? palette.hedge : palette.rule,
      }}>
      <Image
        source={{ uri: `/demo/cards/${demo.name}.jpg` }}
        style={{ width, height, borderRadius: 6, backgroundColor: palette.bench }}
        resizeMode="cover"
        accessible={false}
      />
      <View style={{ flex: 1, minWidth: 0, gap: 2, justifyContent: small ? 'center' : 'flex-start' }}>
        <Words lines={2} style={{ fontWeight: '700', ...(small ? { fontSize: 13.5, lineHeight: 17 } : {}) }}>
          {isOpening ? 'Opening …' : demo.title}
        </Words>
        {small ? null : (
          <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
            {demo.says}
          </Words>
        )}
      </View>
    </Pressable>
  );
}
