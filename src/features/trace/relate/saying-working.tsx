import { Words } from '@/ui/text';

/** Said while it is not known yet whether something can hold. */
export const SayingWorking = ({ isWorking }: { isWorking: boolean }) =>
  isWorking ? (
    <Words quiet testID="saying-working">
      Finding out whether it can hold …
    </Words>
  ) : null;
