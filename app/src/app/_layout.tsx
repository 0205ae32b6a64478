import { useState } from 'react';
import { BarlowSemiCondensed_400Regular } from '@expo-google-fonts/barlow-semi-condensed/400Regular';
import { BarlowSemiCondensed_500Medium } from '@expo-google-fonts/barlow-semi-condensed/500Medium';
import { BarlowSemiCondensed_600SemiBold } from '@expo-google-fonts/barlow-semi-condensed/600SemiBold';
import { Besley_600SemiBold } from '@expo-google-fonts/besley/600SemiBold';
import { Besley_700Bold } from '@expo-google-fonts/besley/700Bold';
import { QueryClientProvider } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { makeQueryClient } from '../api/queryClient';
import { SessionGate } from '../screens/SessionGate';

export default function RootLayout() {
  const [client] = useState(makeQueryClient);
  // The page is shown at once in a fallback face; it does not wait for the fonts.
  useFonts({
    BarlowSemiCondensed_400Regular,
    BarlowSemiCondensed_500Medium,
    BarlowSemiCondensed_600SemiBold,
    Besley_600SemiBold,
    Besley_700Bold,
  });
  return (
    <QueryClientProvider client={client}>
      <SessionGate />
    </QueryClientProvider>
  );
}
