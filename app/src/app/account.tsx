import { OwnAccountScreen } from '../screens/account/OwnAccountScreen';

export default OwnAccountScreen;
