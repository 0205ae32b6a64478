import { OutboxScreen } from '../../screens/notices/OutboxScreen';

export default OutboxScreen;
