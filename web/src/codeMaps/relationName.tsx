import { Field } from '../parts/field.js';
import { OFFERED_RELATIONS } from './texts.js';

const LONGEST = 60;
/** The name of a relation: one of those offered, or any other words. */
export function RelationName({
  label,
  value,
  onChange,
  onBlur,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  onBlur?: () => void;
}) {
  return (
    <>
      <Field
        label={label}
        value={value}
        maxLength={LONGEST}
        list="offered-relations"
        className="w-40"
        onChange={({ target }) => onChange(target.value)}
        onBlur={onBlur}
      />
      <datalist id="offered-relations">
        {OFFERED_RELATIONS.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </>
  );
}
