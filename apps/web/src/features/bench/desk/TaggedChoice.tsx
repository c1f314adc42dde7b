import { Choice } from '../../../shared/Choice';

interface TaggedChoiceProps {
  label: string;
  /** Lights or sheets to choose from. */
  things: readonly { tag: string; name: string }[];
  value: string;
  onChoose(tag: string): void;
}

/** One of the lights or sheets of the set, by tag and name. */
export function TaggedChoice({ label, things, value, onChoose }: TaggedChoiceProps) {
  const options = things.map(({ tag, name }) => ({ value: tag, words: `${tag} ${name}` }));
  return <Choice label={label} shown value={value} options={options} onChoose={onChoose} />;
}
