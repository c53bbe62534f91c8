import type { ReactNode } from 'react';
import { WayDrawing } from './WayDrawing';

const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 2.2, strokeLinecap: 'round' } as const;
const solid = { fill: 'currentColor', stroke: 'none' } as const;
const box = { width: 64, height: 44, viewBox: '0 0 64 44', 'aria-hidden': true } as const;

const drawn = (strokes: ReactNode): ReactNode => <svg {...box}>{strokes}</svg>;
const spring = 'M26 38l12-3-12-4 12-4-12-4 12-4-12-4 12-3';

/** What can be seen when a look is taken, right and wrong, in a few strokes; a look without one is told by its words. */
const drawings: Record<string, ReactNode> = {
  'lever-fork/hooked': <WayDrawing group="fork" way="hooked" />,
  'lever-fork/beside': <WayDrawing group="fork" way="beside" />,
  'seat-side/down': <WayDrawing group="groove" way="into-body" />,
  'seat-side/up': <WayDrawing group="groove" way="outward" />,
  'lever-spring/seated': drawn(
    <>
      <path d="M4 42V32h16v10M44 42V32h16v10" {...line} />
      <path d={spring} {...line} />
      <path d="M8 8H56" {...line} strokeWidth={4} />
    </>,
  ),
  'lever-spring/crooked': drawn(
    <>
      <path d="M4 42V32h16v10M44 42V32h16v10" {...line} />
      <path d={spring} {...line} transform="rotate(32 32 30)" />
      <path d="M8 8H56" {...line} strokeWidth={4} />
    </>,
  ),
  'metering-diaphragm/silent': drawn(<path d="M4 16Q32 40 60 16" {...line} strokeWidth={4} />),
  'metering-diaphragm/crackles': drawn(
    <path d="M4 18L14 26 20 20 28 32 36 22 44 30 50 20 60 18" {...line} strokeWidth={4} />,
  ),
  'metering-diaphragm/holed': drawn(
    <path d="M4 16Q14 26 24 28M38 29Q50 26 60 16M27 22l-3 6 4 4M36 23l3 6-4 4" {...line} strokeWidth={4} />,
  ),
  'diaphragm-centre/same': drawn(
    <>
      <path d="M4 16H60M4 38H60" {...line} />
      <path d="M27 8h10v8H27zM27 30h10v8H27z" {...solid} />
    </>,
  ),
  'diaphragm-centre/differs': drawn(
    <>
      <path d="M4 16H60M4 38H60" {...line} />
      <path d="M27 2h10v14H27zM27 34h10v4H27z" {...solid} />
    </>,
  ),
  'pump-flaps/flat': drawn(<path d="M4 28H26M30 28H58M30 28v-4" {...line} strokeWidth={4} />),
  'pump-flaps/curled': drawn(<path d="M4 28H26M30 28q14 0 18-8t10-10" {...line} strokeWidth={4} />),
  'tank-gasket/inLine': drawn(
    <>
      <circle cx={32} cy={22} r={17} {...line} />
      <circle cx={32} cy={22} r={11} {...line} />
    </>,
  ),
  'tank-gasket/covered': drawn(
    <>
      <circle cx={26} cy={22} r={13} {...line} />
      <path d="M36 9a13 13 0 1 1 0 26a17 17 0 0 0 0-26z" {...solid} />
    </>,
  ),
  'tank-top/sound': drawn(<path d="M4 24H60M8 24v16H56V24M4 12H60" {...line} />),
  'tank-top/bent': drawn(<path d="M4 20Q32 34 60 20M8 24v16H56V24M4 12H60" {...line} />),
  'tank-top/cracked': drawn(<path d="M4 24H26l4 5 4-9 4 4H60M8 24v16H56V24M4 12H60" {...line} />),
  'needle-tip/smooth': drawn(<path d="M26 2H38V22L32 40L26 22z" {...solid} />),
  'needle-tip/grooved': drawn(<path d="M26 2H38V22L36.5 27H33.5V31H35L32 40L29 31H30.5V27H27.5L26 22z" {...solid} />),
  'needle-tip/swollen': drawn(<path d="M26 2H38V16Q48 26 32 40Q16 26 26 16z" {...solid} />),
  'bowl-gasket/seated': drawn(
    <>
      <path d="M4 40V18H20V30H44V18H60V40" {...line} />
      <circle cx={32} cy={24} r={6} {...solid} />
    </>,
  ),
  'bowl-gasket/proud': drawn(
    <>
      <path d="M4 40V18H20V30H44V18H60V40" {...line} />
      <circle cx={47} cy={11} r={6} {...solid} />
    </>,
  ),
  'plunger-place/under': drawn(
    <>
      <path d="M6 10H58L24 26H6z" {...solid} />
      <path d="M16 44V31M12 31h8" {...line} strokeWidth={4} />
    </>,
  ),
  'plunger-place/beside': drawn(
    <>
      <path d="M6 10H58L24 26H6z" {...solid} />
      <path d="M52 44V31M48 31h8" {...line} strokeWidth={4} />
    </>,
  ),
  'seat-depth/down': drawn(
    <>
      <path d="M4 6H16V30H22V42M60 6H48V30H42V42" {...line} />
      <path d="M17 18H47V29H36V22H28V29H17z" {...solid} />
    </>,
  ),
  'seat-depth/askew': drawn(
    <>
      <path d="M4 6H16V30H22V42M60 6H48V30H42V42" {...line} />
      <path d="M17 6H47V17H36V10H28V17H17z" {...solid} transform="rotate(7 32 12)" />
    </>,
  ),
  'turn-test/turns': drawn(
    <>
      <path d="M4 36H16M10 42V14M4 20l6-6 6 6" {...line} />
      <path d="M38 8H60M49 2v30M42 40H56M42 34l14 10M56 34L42 44" {...line} />
    </>,
  ),
  'turn-test/always': drawn(<path d="M10 42V12M4 18l6-6 6 6M49 42V12M43 18l6-6 6 6" {...line} />),
  'turn-test/never': drawn(<path d="M3 14l14 18M17 14L3 32M42 14l14 18M56 14L42 32" {...line} />),
  'adjuster-rings/whole': drawn(
    <>
      <path d="M4 22H44l14 0M44 16l14 6-14 6" {...line} />
      <circle cx={24} cy={13} r={6} {...solid} />
      <circle cx={24} cy={31} r={6} {...solid} />
    </>,
  ),
  'adjuster-rings/cut': drawn(
    <>
      <path d="M4 22H44l14 0M44 16l14 6-14 6" {...line} />
      <path d="M16 15H32V19H16zM16 25H32V29H16z" {...solid} />
    </>,
  ),
  'bowl-turn/faces': drawn(
    <>
      <path d="M4 14V40H34V30H60V14" {...line} />
      <path d="M10 14H54L32 26H10z" {...solid} />
    </>,
  ),
  'bowl-turn/turned': drawn(
    <>
      <path d="M4 14V24H30V40H60V14" {...line} />
      <path d="M10 12H54L32 24H10z" {...solid} />
    </>,
  ),
  'plate-side/asOld': drawn(
    <>
      <path d="M4 26H60" {...line} strokeWidth={4} />
      <path d="M20 14H44V23H20z" {...solid} />
    </>,
  ),
  'plate-side/turned': drawn(
    <>
      <path d="M4 20H60" {...line} strokeWidth={4} />
      <path d="M20 23H44V32H20z" {...solid} />
    </>,
  ),
  'float-free/swings': drawn(
    <>
      <circle cx={10} cy={14} r={4} {...line} />
      <path d="M14 16L40 22" {...line} />
      <rect x={38} y={14} width={20} height={16} rx={3} {...solid} />
      <path d="M62 8q2 14-2 30" {...line} />
    </>,
  ),
  'float-free/binds': drawn(
    <>
      <circle cx={10} cy={14} r={4} {...solid} />
      <path d="M14 16L40 22M4 8l12 12M16 8L4 20" {...line} />
      <rect x={38} y={14} width={20} height={16} rx={3} {...solid} />
    </>,
  ),
  'nut-washer/there': drawn(
    <>
      <path d="M16 26H48V42H16z" {...solid} />
      <path d="M12 20H52" {...line} strokeWidth={5} />
      <path d="M24 14V2M40 14V2" {...line} />
    </>,
  ),
  'nut-washer/gone': drawn(
    <>
      <path d="M16 26H48V42H16z" {...solid} />
      <path d="M24 24V2M40 24V2" {...line} />
    </>,
  ),
  'pickup-screens/pass': drawn(<path d="M14 2V28M8 28H20V42H8zM46 2V28M40 28H52V42H40zM26 12l4-6 4 6" {...line} />),
  'pickup-screens/slow': drawn(
    <>
      <path d="M14 2V28M8 28H20V42H8zM46 2V28M40 28H52V42H40z" {...line} />
      <path d="M40 36H52V42H40z" {...solid} />
    </>,
  ),
  'pickup-screens/blocked': drawn(
    <>
      <path d="M14 2V28M8 28H20V42H8zM46 2V28M40 28H52V42H40z" {...line} />
      <path d="M40 28H52V42H40z" {...solid} />
    </>,
  ),
  'choke-chamber/dry': drawn(<path d="M6 10V38H58V10M6 24Q32 16 58 24" {...line} />),
  'choke-chamber/wet': drawn(
    <>
      <path d="M6 10V38H58V10" {...line} />
      <path d="M6 24Q32 16 58 24V38H6z" {...solid} />
    </>,
  ),
  'lever-free/back': drawn(<path d="M6 20H54M30 20v12M20 36a12 8 0 0 0 22-2M42 34l2 6M42 34l-6 2" {...line} />),
  'lever-free/sticks': drawn(<path d="M6 20L54 36M30 28v10M20 8l10 10M30 8L20 18" {...line} />),
  'float-gap/even': drawn(
    <>
      <path d="M4 8H60" {...line} strokeWidth={4} />
      <rect x={10} y={18} width={44} height={18} rx={4} {...solid} />
    </>,
  ),
  'float-gap/tilted': drawn(
    <>
      <path d="M4 8H60" {...line} strokeWidth={4} />
      <rect x={10} y={19} width={44} height={18} rx={4} {...solid} transform="rotate(11 32 28)" />
    </>,
  ),
};

export const hasLookDrawing = (look: string, seen: string): boolean => `${look}/${seen}` in drawings;

/** A small drawing of what is seen; nothing where the words say it. */
export const LookDrawing = ({ look, seen }: { look: string; seen: string }): ReactNode =>
  drawings[`${look}/${seen}`] ?? null;
