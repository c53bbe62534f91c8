import { useQuery } from '@tanstack/react-query';
import { api, ask } from '../api/client';
import { keys } from '../api/keys';

/** How a spec sheet is typed: Core's own list of boxes. */
export const useSheetForm = () =>
  useQuery({ queryKey: keys.sheetForm, queryFn: () => ask(api.GET('/api/sheets/form')), staleTime: Infinity });
