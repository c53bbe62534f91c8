import type { ItemOffered, PartMatch } from '../../api/client';
import { useUnits } from '../../session/session';
import { say } from '../../units/format';

const partWord: Record<PartMatch['verdict'], string> = {
  fits: 'fits',
  differs: 'does not fit',
  cannotTell: 'cannot tell',
  notMeasured: 'not measured',
  missing: 'not in it',
  tooFew: 'too few',
};
const featureWord: Record<PartMatch['features'][number]['verdict'], string> = {
  fits: 'fits',
  differs: 'does not fit',
  cannotTell: 'cannot tell',
  notMeasured: 'not measured',
};
const tone = {
  fits: 'text-ok',
  differs: 'text-bad font-bold',
  cannotTell: 'text-unsure font-bold',
  notMeasured: 'text-unsure',
  missing: 'text-unsure',
  tooFew: 'text-unsure',
} as const;

/** Each part of a kit against what is wanted, feature by feature, with what is allowed. */
export function PartTable({ item, parts }: { item: ItemOffered['item']; parts: PartMatch[] }) {
  const units = useUnits();
  const extra = item.parts.filter((part) => !parts.some((p) => p.part === part.part));
  return (
    <div className="grid gap-2 overflow-x-auto">
      <table className="w-full min-w-[34rem] border-collapse text-left">
        <thead>
          <tr className="text-mute text-note">
            <th className="py-1 pr-3 font-strong">Part</th>
            <th className="py-1 pr-3 font-strong">Wanted</th>
            <th className="py-1 pr-3 font-strong">In {item.number}</th>
            <th className="py-1 pr-3 font-strong">Allowed</th>
            <th className="py-1 font-strong" />
          </tr>
        </thead>
        {parts.map((part) => (
          <tbody key={part.part}>
            <tr className="border-line border-t align-top">
              <th scope="row" className="py-1 pr-3 font-bold">
                {part.part}
              </th>
              <td className="num py-1 pr-3">{part.needed}</td>
              <td className="num py-1 pr-3">{part.brought}</td>
              <td />
              <td className={`py-1 ${tone[part.verdict]}`}>{partWord[part.verdict]}</td>
            </tr>
            {part.features.map((feature) => (
              <tr key={feature.feature} className="align-top leading-snug">
                <th scope="row" className="text-mute py-0.5 pr-3 pl-3 font-normal">
                  {feature.feature}
                </th>
                <td className="py-0.5 pr-3">
                  {feature.wanted ? say(feature.wanted, units) : 'not measured'}
                  {feature.from === 'oldPart' && <span className="text-mute"> old part</span>}
                </td>
                <td className="py-0.5 pr-3">{feature.offered ? say(feature.offered, units) : 'not stated'}</td>
                <td className="text-mute py-0.5 pr-3">{feature.allowed && say(feature.allowed, units)}</td>
                <td className={`py-0.5 ${tone[feature.verdict]}`}>
                  {featureWord[feature.verdict]}
                  {feature.consequence && `: ${feature.consequence}`}
                </td>
              </tr>
            ))}
          </tbody>
        ))}
      </table>
      {extra.length > 0 && (
        <p className="text-mute">Also in it: {extra.map((part) => `${part.quantity} ${part.part}`).join(', ')}.</p>
      )}
    </div>
  );
}
