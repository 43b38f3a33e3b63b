import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { Slot } from 'expo-router';
import { useEffect, useState } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { keepAppOnDevice } from '@/store';
import { Icon, isIconName } from '@/ui/icon';
import { paperTheme } from '@/ui/theme';

const settings = {
  icon: ({ name, color, size }: { name: unknown; color?: string; size: number }) =>
    isIconName(name) ? <Icon name={name} color={color ?? 'currentColor'} size={size} /> : null,
};

export default function Layout() {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: { queries: { networkMode: 'always', retry: false }, mutations: { networkMode: 'always' } },
      }),
  );
  useEffect(keepAppOnDevice, []);
  return (
    <QueryClientProvider client={client}>
      <PaperProvider theme={paperTheme(useColorScheme() === 'dark')} settings={settings}>
        <Slot />
      </PaperProvider>
    </QueryClientProvider>
  );
}
