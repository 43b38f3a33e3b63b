import { useState, type RefObject } from 'react';
import { View, type TextInput as NativeInput } from 'react-native';
import { TextInput } from 'react-native-paper';
import type { Result } from '@/core/basics';
import { FONT, usePalette } from './palette';
import { Words } from './text';
import { sentenceFor } from './words';

interface WrittenFieldProps<T> {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly parse: (text: string) => Result<T>;
  /** How what was read is said back, so that a misreading shows before it is used. */
  readonly echo?: (value: T) => string;
  readonly onSubmit?: (value: T) => void;
  readonly width?: number;
  readonly testID?: string;
  readonly inputRef?: RefObject<NativeInput | null>;
  readonly autoFocus?: boolean;
}

/** A field for a written size or angle. What cannot be read stays as it was typed, with a sentence that says what is wrong. */
export function WrittenField<T>({
  label,
  value,
  onChange,
  parse,
  echo,
  onSubmit,
  width,
  testID,
  inputRef,
  autoFocus,
}: WrittenFieldProps<T>) {
  const palette = usePalette();
  const [asked, setAsked] = useState(false);
  const read = value.trim() === '' && !asked ? undefined : parse(value);
  const problem =
    read && !read.ok && (asked || read.code !== 'written-length-ends-early')
      ? sentenceFor(read.code, read.detail)
      : undefined;
  const named = (part = '') => (testID === undefined ? {} : { testID: `${testID}${part}` });
  return (
    <View style={width ? { width } : { flex: 1, minWidth: 120 }}>
      <TextInput
        ref={inputRef as never}
        {...named()}
        mode="outlined"
        dense
        label={label}
        accessibilityLabel={label}
        value={value}
        autoFocus={autoFocus ?? false}
        error={Boolean(problem)}
        contentStyle={{ fontFamily: FONT.figures, fontSize: 16 }}
        style={{ backgroundColor: palette.paper, height: 46 }}
        autoCapitalize="none"
        autoCorrect={false}
        onChangeText={(text) => {
          setAsked(false);
          onChange(text);
        }}
        onSubmitEditing={() => {
          setAsked(true);
          const said = parse(value);
          if (said.ok) onSubmit?.(said.value);
        }}
        submitBehavior="submit"
      />
      {problem ? (
        <Words style={{ color: palette.berry, fontSize: 13, lineHeight: 17 }} {...named('-problem')}>
          {problem}
        </Words>
      ) : read?.ok && echo ? (
        <Words quiet style={{ fontSize: 13, lineHeight: 17 }} {...named('-echo')}>
          {echo(read.value)}
        </Words>
      ) : null}
    </View>
  );
}
