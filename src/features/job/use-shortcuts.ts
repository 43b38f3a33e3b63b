import { useEffect } from 'react';
import { step } from '@/bench/follow';
import { toolOf } from '@/bench/tools';
import type { Desk } from '@/bench/use-session';

/** Keys that work anywhere on the job's screen, except while something is typed: undo, redo, delete. */
export function useShortcuts({ jobs, session }: Desk): void {
  useEffect(() => {
    const handle = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.tagName === 'INPUT' || target.tagName === 'TEXTAREA') return;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        const { tool } = session.getState();
        if (event.shiftKey) step('redo', { jobs, session });
        else if (toolOf(tool).takesBack?.(tool.state)) session.input({ kind: 'back' });
        else step('undo', { jobs, session });
      }
    };
    window.addEventListener('keydown', handle);
    return () => window.removeEventListener('keydown', handle);
  }, [jobs, session]);
}
