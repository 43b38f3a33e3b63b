import type { ReactNode } from 'react';
import { Dialog, Portal } from 'react-native-paper';
import { useEscape } from './use-escape';

interface AskDialogProps {
  readonly title: string;
  readonly onLeave: () => void;
  readonly testID: string;
  /** What is asked, and the buttons below it. It stands outside of the screen that opened it, and knows of it only what it is given. */
  readonly children: ReactNode;
}

/** A slip over the screen that asks for something; Escape, or a tap beside it, leaves it. */
export function AskDialog({ title, onLeave, testID, children }: AskDialogProps) {
  useEscape(onLeave);
  return (
    <Portal>
      <Dialog visible onDismiss={onLeave} style={{ maxWidth: 480, width: '94%', alignSelf: 'center' }} testID={testID}>
        <Dialog.Title>{title}</Dialog.Title>
        {children}
      </Dialog>
    </Portal>
  );
}
