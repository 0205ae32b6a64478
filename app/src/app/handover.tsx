import { HandoverScreen } from '../screens/handover/HandoverScreen';

export default HandoverScreen;
