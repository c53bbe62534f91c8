/** Light, dark, or as the device says. Kept on the device: it is about this screen, not about the person. */
export type Theme = 'device' | 'light' | 'dark';

const KEY = 'theme';

export const storedTheme = (): Theme => {
  const stored = localStorage.getItem(KEY);
  return stored === 'light' || stored === 'dark' ? stored : 'device';
};

export function applyTheme(theme: Theme = storedTheme()): void {
  localStorage.setItem(KEY, theme);
  if (theme === 'device') delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = theme;
}
