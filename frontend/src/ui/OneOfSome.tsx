import { Choice } from "./Choice";
import { Picker, type Pick } from "./Picker";

interface Props {
  /** Its name on screen. */
  label: string;
  /** What stands there now. */
  value: string;
  /** What may be chosen, with labels. */
  options: readonly Pick[];
  /** Told what is typed or chosen. */
  onChange: (id: string) => void;
}

/** What still reads at a glance as a row of buttons. */
const FEW = 7;
const SHORT = 64;

/** One of some: in a row while they are few and short, else picked by name. */
export function OneOfSome({ label, value, options, onChange }: Props) {
  const known = options.some((o) => o.id === value);
  const all = known || value === "" ? options : [...options, { id: value, label: value }];
  const letters = all.reduce((sum, o) => sum + o.label.length, 0);
  return all.length <= FEW && letters <= SHORT ? (
    <Choice label={label} value={value} options={all} onChange={onChange} />
  ) : (
    <Picker label={label} value={value} items={[...all]} onChange={onChange} />
  );
}
