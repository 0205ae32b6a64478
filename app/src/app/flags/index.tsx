import { FlagsScreen } from '../../screens/flags/FlagsScreen';

export default FlagsScreen;
