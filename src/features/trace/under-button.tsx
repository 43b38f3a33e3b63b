import { useDesk } from '@/bench/use-session';
import { LedgeButton } from '@/ui/ledge-button';

/** Goes on to what lies under what was chosen, where something does. */
export function UnderButton({ within }: { within: readonly unknown[] | undefined }) {
  const { session } = useDesk();
  if (!within) return null;
  return (
    <LedgeButton
      icon="copy"
      label="Under it"
      name={`Choose what lies under it: ${within.length} lie here`}
      onPress={() => session.catchNext()}
      testID="edit-under"
    />
  );
}
