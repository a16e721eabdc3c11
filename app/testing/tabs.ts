import { vi } from 'vitest';
import { inTab } from './browserGlobals';

/**
 * The store as a tab of its own has it: its modules are loaded anew, so that its memory is its own, over the one
 * database that all tabs share.
 */
export async function openTab(name: string) {
  vi.resetModules();
  const { runCommand } = await import('../form/command');
  const { layoutCommands } = await import('../rooms/layout/layoutActions');
  const { fairnessCommands } = await import('../rooms/fairness/fairnessActions');
  const { logCommands } = await import('../rooms/logActions');
  const modules = {
    logAction: (id: string, data: unknown) => runCommand(logCommands, id, data),
    layoutAction: (id: string, data: unknown) => runCommand(layoutCommands, id, data),
    fairnessAction: (id: string, data: unknown) => runCommand(fairnessCommands, id, data),
    ...(await import('../store/trials')),
    ...(await import('../store/takeIn')),
    ...(await import('../store/undo')),
    ...(await import('../store/clashes')),
    ...(await import('../store/conflicts')),
    ...(await import('../store/products')),
    ...(await import('../store/change')),
    bin: await import('../store/bin'),
    bench: await import('../store/bench'),
    ...(await import('../rooms/question/questionData')),
    ...(await import('../rooms/contenders/contendersData')),
  };
  return {
    ...modules,
    /** Does something as this tab does it. */
    as: <T>(act: () => T): T => {
      inTab(name);
      return act();
    },
  };
}

export type Tab = Awaited<ReturnType<typeof openTab>>;

/** What a route is given, with a body that was posted. */
export const posted = (trialId: string, body: unknown) => ({
  params: { trialId },
  request: new Request('http://localhost/', { method: 'POST', body: JSON.stringify(body) }),
});
