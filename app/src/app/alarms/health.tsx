import { AlarmHealthScreen } from '../../screens/health/AlarmHealthScreen';

export default AlarmHealthScreen;
