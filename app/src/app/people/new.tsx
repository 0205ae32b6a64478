import { InviteScreen } from '../../screens/people/InviteScreen';

export default InviteScreen;
