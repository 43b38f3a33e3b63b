import { useEffect, useState } from 'react';
import { z } from '@/core/schema';
import { askService } from '@/store';

const PLACE = '/service/caliper';
const Caliper = z.object({ name: z.string(), plusMinus: z.number().positive(), simulated: z.boolean() });
const Reading = z.object({
  mm: z.number(),
  text: z.string().regex(/^-?\d+(\.\d+)?$/),
  unit: z.enum(['mm', 'in']),
  hold: z.boolean(),
  sent: z.boolean(),
});

export type Reading = z.infer<typeof Reading>;
export type CaliperState =
  | { readonly kind: 'away' }
  | { readonly kind: 'there'; readonly simulated: boolean; readonly reading: Reading | undefined };

/** Listens to the caliper: what was sent goes into the field that has the focus. `onHomeless` is told of a reading that no field waited for. */
export function useCaliper(on: boolean, onHomeless: () => void): CaliperState {
  const [state, setState] = useState<CaliperState>({ kind: 'away' });
  useEffect(() => {
    if (!on) return;
    let plusMinus = 0.03;
    const stream = new EventSource(`${PLACE}/readings`);
    void askService(PLACE, Caliper).then((caliper) => {
      if (!caliper.ok) return;
      ({ plusMinus } = caliper.value);
      setState((known) => ({
        kind: 'there',
        simulated: caliper.value.simulated,
        reading: known.kind === 'there' ? known.reading : undefined,
      }));
    });
    stream.addEventListener('reading', (event: MessageEvent<string>) => {
      const reading = readingIn(event.data);
      if (!reading) return;
      setState((known) => ({ kind: 'there', simulated: known.kind === 'there' ? known.simulated : true, reading }));
      if (reading.sent && !typeInto(document.activeElement, writtenReading(reading, plusMinus))) onHomeless();
    });
    stream.onerror = () => setState({ kind: 'away' });
    return () => stream.close();
  }, [on, onHomeless]);
  return on ? state : { kind: 'away' };
}

/** The reading with what the caliper promises, in the unit of its display. */
function writtenReading({ text, unit }: Reading, plusMinus: number): string {
  return `${text} ${unit} ± ${unit === 'mm' ? plusMinus : Number((plusMinus / 25.4).toFixed(4))}`;
}

function readingIn(data: string): Reading | undefined {
  try {
    const read = Reading.safeParse(JSON.parse(data));
    return read.success ? read.data : undefined;
  } catch {
    return undefined;
  }
}

/** Types a text into a field as a hand would; false where there is no field. */
export function typeInto(field: Element | null, text: string): boolean {
  if (
    !(field instanceof HTMLInputElement) ||
    field.disabled ||
    field.readOnly ||
    !['text', 'search', 'tel', ''].includes(field.type)
  )
    return false;
  // The framework keeps its own copy of the value: it hears of a change only when the element's own setter makes it.
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  return true;
}

/** What a hand does to the simulated caliper. */
export async function moveCaliper(change: {
  readonly mm?: number;
  readonly unit?: 'mm' | 'in';
  readonly hold?: boolean;
}): Promise<void> {
  await askService(`${PLACE}/hand`, z.unknown(), { method: 'POST', body: change });
}

export async function pressCaliper(): Promise<void> {
  await askService(`${PLACE}/send`, z.unknown(), { method: 'POST', body: {} });
}
