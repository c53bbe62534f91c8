/**
 * The keys under which answers of the server are kept. Everything of one tray lies under its number, so that a change of
 * the tray reaches all of it.
 */
export const keys = {
  session: ['session'] as const,
  devices: ['devices'] as const,
  bench: ['bench'] as const,
  baths: ['baths'] as const,
  parts: ['parts'] as const,
  owners: ['owners'] as const,
  earlier: (owner: string, machine: string) => ['earlier', owner, machine] as const,
  identify: (question: unknown) => ['identify', question] as const,
  stamped: (number: string) => ['stamped', number] as const,
  faultWords: (...kind: unknown[]) => ['fault-words', ...kind] as const,
  tray: (number: number) => ['tray', number, 'view'] as const,
  ofTray: (number: number) => ['tray', number] as const,
  trace: (number: number, history: boolean) => ['tray', number, 'trace', history] as const,
  ledger: (number: number) => ['tray', number, 'ledger'] as const,
  newParts: (number: number, part: string) => ['tray', number, 'new-parts', part] as const,
  cleaning: (number: number) => ['tray', number, 'cleaning'] as const,
  kits: (number: number) => ['tray', number, 'kits'] as const,
  fitting: (number: number, renew?: readonly string[]) => ['tray', number, 'fitting', renew ?? 'all'] as const,
  photos: (number: number) => ['tray', number, 'photos'] as const,
  report: (number: number) => ['tray', number, 'report'] as const,
  stock: ['stock'] as const,
  shelf: ['stock', 'shelf'] as const,
  item: (number: string) => ['stock', 'item', number] as const,
  found: (text: string) => ['stock', 'found', text] as const,
  buying: (refill: boolean) => ['stock', 'buying', refill] as const,
  catalogue: ['catalogue'] as const,
  imported: (id: string) => ['catalogue', 'import', id] as const,
};
