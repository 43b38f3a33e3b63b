import { useEffect } from 'react';
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
        if (event.shiftKey) jobs.getState().redo();
        else if (toolOf(tool).takesBack?.(tool.state)) session.input({ kind: 'back' });
        else jobs.getState().undo();
      }
    };
    window.addEventListener('keydown', handle);
    return () => window.removeEventListener('keydown', handle);
  }, [jobs, session]);
}
