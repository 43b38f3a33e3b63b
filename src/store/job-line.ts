import { newId } from './ids';

/** What a window can be asked that has a job open to write it. */
export type Ask =
  | { readonly kind: 'are-you-there' }
  /** Another window took the job without an answer: see whether it is still yours. Nothing is answered. */
  | { readonly kind: 'look' }
  /** Another window takes over: write what is not written, and let go. */
  | { readonly kind: 'let-go' }
  /** Write what is not written yet. */
  | { readonly kind: 'write' }
  | { readonly kind: 'rename'; readonly name: string };

export interface Answer {
  /** Something that was changed could not be stored and is only in the window that answers. */
  readonly holdsMore: boolean;
}

type Message =
  | { readonly way: 'ask'; readonly id: string; readonly ask: Ask }
  | { readonly way: 'answer'; readonly id: string; readonly answer: Answer };

/** The few things asked of a channel, so that tests can hand in another. */
export type Channel = Pick<BroadcastChannel, 'postMessage' | 'close'> & {
  onmessage: ((event: MessageEvent) => void) | null;
};

/** What differs between a browser and a test. */
export interface Surroundings {
  openChannel(name: string): Channel | undefined;
  wait(ms: number): Promise<void>;
}

export const BROWSER: Surroundings = {
  openChannel: (name) => (typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(name)),
  wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
};

/** What windows say to each other about one job: questions to the one that writes it, and its answers. */
export class JobLine {
  private readonly channel: Channel | undefined;
  private readonly waiting = new Map<string, (answer: Answer) => void>();

  /** @param onAsk undefined: not for this window to answer */
  constructor(
    job: string,
    private readonly surroundings: Surroundings,
    private readonly onAsk: (ask: Ask) => Promise<Answer | undefined>,
  ) {
    this.channel = surroundings.openChannel(`bryony/${job}`);
    if (this.channel) this.channel.onmessage = ({ data }: MessageEvent<Message>) => void this.hear(data);
  }

  /** What the window answers that writes the job; undefined when none does in that time. */
  async ask(ask: Ask, ms: number): Promise<Answer | undefined> {
    if (!this.channel) return undefined;
    const id = newId();
    const answered = new Promise<Answer>((resolve) => this.waiting.set(id, resolve));
    this.tell({ way: 'ask', id, ask });
    const answer = await Promise.race([answered, this.surroundings.wait(ms)]);
    this.waiting.delete(id);
    return answer ?? undefined;
  }

  /** Says something that is not answered. */
  tellOf(ask: Ask): void {
    this.tell({ way: 'ask', id: newId(), ask });
  }

  close(): void {
    this.channel?.close();
  }

  private async hear(message: Message): Promise<void> {
    if (message.way === 'answer') return this.waiting.get(message.id)?.(message.answer);
    const answer = await this.onAsk(message.ask);
    if (answer) this.tell({ way: 'answer', id: message.id, answer });
  }

  private tell(message: Message): void {
    this.channel?.postMessage(message);
  }
}
