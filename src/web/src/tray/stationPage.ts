import type { ComponentType, LazyExoticComponent } from 'react';
import type { Tray } from '../api/client';
import type { TrayWrite } from './useTrayWrite';

/** What every station's page is given. */
export interface StationProps {
  tray: Tray;
  /** Changes of what stands on the tray itself. */
  writing: TrayWrite;
}

/** How a station is shown on a tray. */
export interface StationPage {
  Page: LazyExoticComponent<ComponentType<StationProps>>;
  /** Whether it takes the whole bench, without the card beside it. */
  wide?: true;
  /** Whether it has a drawing of its own, so that the card beside it has none. */
  drawn?: true;
}
