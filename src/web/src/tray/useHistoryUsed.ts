import { useKept } from '../outbox/drafts';
import { usePerson } from '../session/session';

/** Whether the shop's own history shifts the odds; remembered on the device. */
export function useHistoryUsed(): [boolean, (used: boolean) => void] {
  const person = usePerson();
  const [used, keep] = useKept(`${person.id}:history`, true);
  return [used, keep];
}
