import { useQuery } from '@tanstack/react-query';
import { Check, ChevronDown, X } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useDeferredValue, useState } from 'react';
import { api, ask, type KitOffer, type Problem, type Tray } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { useAtTheBench, usePerson } from '../../session/session';
import { isConflict, type TrayWrite } from '../../tray/useTrayWrite';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';
import { Loading, Notice, Trouble } from '../../ui/states';
import { money } from '../../units/format';

const fitWord = { fits: 'Fits', partly: 'Fits in part', nearMiss: 'Near miss' } as const;
const fitTone = { fits: 'text-ok', partly: 'text-unsure', nearMiss: 'text-bad' } as const;
const stampWord = { exact: 'this very number', misread: 'reads like it', part: 'begins like it', none: '' } as const;

/** From the stamped number to the spec sheet and to the kits that fit it, with the reason. */
export function KitsSheet({ tray, writing }: { tray: Tray; writing: TrayWrite }) {
  const person = usePerson();
  const mayChoose = useAtTheBench() && tray.facts.waitsFor !== 'handedBack';
  const [typed, keep] = useKept(`${person.id}:${tray.number}:stamp`, tray.facts.stampedNumber);
  const stamped = useDeferredValue(typed);
  const spec = tray.spec?.code;
  const search = useQuery({
    queryKey: ['kits', stamped, spec],
    queryFn: () => ask(api.GET('/api/kits', { params: { query: { stamped, ...(spec ? { spec } : {}) } } })),
    placeholderData: (before) => before,
  });
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const where = { params: { path: { number: tray.number } } };
  const choose = async (writing: Promise<Problem | null>): Promise<void> => {
    setBusy(true);
    const found = await writing;
    setProblem(found && !isConflict(found) ? found : null);
    setBusy(false);
    void search.refetch();
  };
  const chooseSpec = (specCode: string): void =>
    void choose(
      writing.write({ specCode, stampedNumber: typed.trim() }, (entryId, version) =>
        ask(
          api.PUT('/api/trays/{number}/spec', {
            ...where,
            body: { entryId, version, specCode, stampedNumber: typed },
          }),
        ),
      ),
    );
  const chooseKit = (kitNumber: string): void =>
    void choose(
      writing.write({ kitNumber }, (entryId, version) =>
        ask(api.PUT('/api/trays/{number}/kit', { ...where, body: { entryId, version, kitNumber } })),
      ),
    );
  const specs = search.data?.specs ?? [];
  const likely = specs.filter((s) => s.stamp !== 'none');
  const [all, setAll] = useState(false);
  const shown = all || likely.length === 0 ? specs : likely;

  return (
    <section aria-label="Kit" className="bg-sheet border-line grid content-start gap-4 rounded-xl border px-5 py-4">
      <h2 className="text-[1.25rem]">Identify and kit</h2>
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
      <div className="grid gap-5 md:grid-cols-[17rem_1fr]">
        <TextField
          label="Stamped number"
          hint="As read; look-alike characters are tried too"
          className="num text-[1.25rem]"
          value={typed}
          maxLength={40}
          onChange={(e) => keep(e.target.value)}
        />
        <div>
          <h3 className="font-[600]">Spec sheet</h3>
          <ul className="mt-1 flex flex-wrap gap-2">
            {shown.map(({ sheet, stamp, stampedAs }) => (
              <li key={sheet.code}>
                <button
                  type="button"
                  aria-pressed={sheet.code === spec}
                  disabled={!mayChoose || busy}
                  onClick={() => {
                    if (sheet.code !== spec) chooseSpec(sheet.code);
                  }}
                  className="border-line-strong aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-sheet min-h-11 rounded-lg border-[1.5px] px-3 py-1 text-left leading-tight"
                >
                  <span className="block font-[650]">
                    {sheet.maker} {sheet.code}
                  </span>
                  <span className="block text-[0.9375rem] opacity-85">
                    {stampedAs ? `${stampedAs}, ${stampWord[stamp]}` : sheet.stampedNumbers.join(', ')}
                  </span>
                </button>
              </li>
            ))}
            {likely.length > 0 && likely.length < specs.length && (
              <li>
                <Button look="quiet" onClick={() => setAll(!all)}>
                  {all ? 'Only the likely' : `All ${specs.length} sheets`}
                </Button>
              </li>
            )}
          </ul>
          {likely.length === 0 && specs.length > 0 && (
            <p className="text-mute mt-1">
              {typed.trim()
                ? 'No sheet has this number. Check the stamp, or pick the sheet by hand.'
                : 'Type the number, or pick the sheet by hand.'}
            </p>
          )}
        </div>
      </div>
      {search.isPending && <Loading what="kits" />}
      {search.isError && !search.data && <Trouble error={search.error} retry={() => void search.refetch()} />}
      {search.data && (
        <div>
          <h3 className="text-mute pb-1 text-[0.9375rem] font-[600]">
            {search.data.kits.length === 0
              ? 'No kit is known for this'
              : `Kits for ${search.data.specCode ?? 'this number'}, best fit first`}
          </h3>
          <ul>
            {search.data.kits.map((kit) => (
              <KitRow
                key={kit.number}
                kit={kit}
                chosen={tray.kit?.number === kit.number}
                fromShelf={tray.kit?.fromShelf ?? false}
                mayChoose={mayChoose && !busy}
                onChoose={() => chooseKit(kit.number)}
              />
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

interface RowProps {
  kit: KitOffer;
  chosen: boolean;
  fromShelf: boolean;
  mayChoose: boolean;
  onChoose: () => void;
}

function KitRow({ kit, chosen, fromShelf, mayChoose, onChoose }: RowProps) {
  const [open, setOpen] = useState(false);
  const { fit } = kit;
  return (
    <li className={`border-line border-t py-3 ${chosen ? 'bg-paper -mx-3 rounded-lg px-3' : ''}`}>
      <Collapsible.Root open={open} onOpenChange={setOpen}>
        <div className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
          <div>
            <p className="text-[1.0625rem]">
              <span className="num font-[650]">{kit.number}</span> {kit.name}, {kit.maker}
            </p>
            <p className="leading-snug">
              <span className={`font-[650] ${fitTone[fit.verdict]}`}>{fitWord[fit.verdict]}.</span> {fit.reason}
            </p>
          </div>
          <div className="text-right">
            <p className="num text-[1.125rem] font-[650]">{money(kit.price, kit.currency)}</p>
            <p className={kit.onShelf > 0 ? 'text-mute' : 'text-unsure font-[600]'}>
              {kit.onShelf > 0
                ? `${kit.onShelf} on the shelf`
                : chosen && fromShelf
                  ? 'that was the last'
                  : 'none on the shelf'}
            </p>
          </div>
        </div>
        <div className="mt-1 flex flex-wrap items-center gap-2">
          {chosen ? (
            <span className="text-ok inline-flex min-h-11 items-center gap-1.5 font-[650]">
              <Check aria-hidden size={20} /> Chosen for this tray{fromShelf ? '' : ', to order'}
            </span>
          ) : (
            <Button
              look={fit.verdict === 'fits' ? 'hands' : 'plain'}
              disabled={!mayChoose}
              onClick={onChoose}
              aria-label={`Choose ${kit.number}`}
            >
              {kit.onShelf > 0 ? 'Choose it' : 'Choose it, to order'}
            </Button>
          )}
          <Collapsible.Trigger asChild>
            <Button look="quiet" aria-label={`What is in ${kit.number}`}>
              What is in it <ChevronDown aria-hidden size={18} className={open ? 'rotate-180' : ''} />
            </Button>
          </Collapsible.Trigger>
        </div>
        <Collapsible.Content className="grid gap-4 pt-1 md:grid-cols-2">
          <div>
            <h4 className="text-mute text-[0.9375rem] font-[600]">In the kit</h4>
            <ul>
              {kit.parts.map((part) => (
                <li key={part.part + JSON.stringify(part.features)}>
                  {part.quantity} {part.part}
                  <span className="text-mute">
                    {Object.entries(part.features).map(([name, value]) => `, ${name} ${value}`)}
                  </span>
                </li>
              ))}
            </ul>
          </div>
          {fit.parts.length > 0 && (
            <div>
              <h4 className="text-mute text-[0.9375rem] font-[600]">Against what is needed</h4>
              <ul>
                {fit.parts.map((part) => (
                  <li key={part.part} className="flex items-start gap-1.5">
                    {part.agrees ? (
                      <Check aria-label="agrees" size={18} className="text-ok mt-0.5" />
                    ) : (
                      <X aria-label="does not agree" size={18} className="text-bad mt-0.5" />
                    )}
                    <span>{part.agrees ? `${part.part}: ${part.note}` : part.note}</span>
                  </li>
                ))}
              </ul>
            </div>
          )}
        </Collapsible.Content>
      </Collapsible.Root>
    </li>
  );
}
