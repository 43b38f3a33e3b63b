import { useState } from 'react';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { Outcome } from '@/workers';
import { saveFile } from './download';

interface SaveTableProps {
  readonly fileName: string;
  readonly disabled?: boolean;
  /** Gives the table as comma-separated values. */
  write(): Promise<Outcome<string>>;
  readonly testID: string;
}

/** Saves a list as a table. */
export function SaveTable({ fileName, disabled = false, write, testID }: SaveTableProps) {
  const { session } = useDesk();
  const [isWriting, setWriting] = useState(false);
  const save = async () => {
    setWriting(true);
    const written = await write();
    setWriting(false);
    if (written.kind === 'done') saveFile(`${fileName}.csv`, written.value, 'text/csv');
    else session.say('worker-failed');
  };
  return (
    <Button
      mode="outlined"
      icon="file"
      loading={isWriting}
      disabled={isWriting || disabled}
      onPress={() => void save()}
      testID={testID}>
      Save the list as a table
    </Button>
  );
}
