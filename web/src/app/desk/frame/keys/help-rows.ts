import type { HelpRow } from '../../platform/feature/commands';
import type { Registered } from '../../platform/feature/registered';

/** Every key the desk knows, as the help sheet shows them. */
export function helpRows(registered: Registered): HelpRow[] {
  const { tools, aids, commands } = registered;
  return [
    { keys: '1 – 9', does: 'take a kit slot' },
    { keys: 'Alt ↑ / Alt ↓', does: 'move the slot in focus' },
    ...tools.flatMap(({ key, name, help }) =>
      key ? [{ keys: key, does: help ?? name.toLowerCase() }] : [],
    ),
    ...aids.map(({ key, name }) => ({ keys: key, does: name.toLowerCase() })),
    ...commands.flatMap(({ help }) => help ?? []),
    ...registered.list('help'),
  ];
}
