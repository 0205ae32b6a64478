import { useThemeStore } from '../stores/themeStore';
import { useIsNight } from '../theme/useTheme';
import { MoonIcon, SunIcon } from './icons';
import { IconButton } from './IconButton';

/** Turns between day sheet and night watch. */
export function ThemeToggle() {
  const night = useIsNight();
  const choose = useThemeStore((state) => state.actions.choose);
  return (
    <IconButton
      icon={night ? SunIcon : MoonIcon}
      name={night ? 'Switch to day sheet' : 'Switch to night watch'}
      onPress={() => choose(night ? 'day' : 'night')}
    />
  );
}
