import { WelcomeScreen } from '../screens/account/WelcomeScreen';

export default WelcomeScreen;
