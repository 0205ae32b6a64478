import { RuleEditorScreen } from '../../../screens/RuleEditorScreen';

export default function NewRule() {
  return <RuleEditorScreen />;
}
