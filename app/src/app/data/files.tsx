import { FilesScreen } from '../../screens/data/FilesScreen';

export default function FilesRoute() {
  return <FilesScreen />;
}
