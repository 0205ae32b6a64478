import { useQuery } from '@tanstack/react-query';
import { scaleLinear } from 'd3-scale';
import { DateTime } from 'luxon';
import { useForm } from 'react-hook-form';
import { Pressable, Text, TextInput, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import * as yup from 'yup';
import { create } from 'zustand';

const useCount = create((set) => ({
  count: 0,
  more: () => set(({ count }) => ({ count: count + 1 })),
}));
const schema = yup.object({ name: yup.string().required() });

/** The least that uses the same libraries: a form, a drawing, a question to the server, a state, a date. */
export default function Home() {
  const { count, more } = useCount();
  const { setValue, watch } = useForm({ defaultValues: { name: '' } });
  const answer = useQuery({
    queryKey: ['session'],
    queryFn: async () => (await fetch('/api/session')).status,
    retry: false,
  });
  const x = scaleLinear().domain([0, 10]).range([0, 100]);
  return (
    <View style={{ padding: 20 }}>
      <Text role="heading" style={{ fontSize: 28 }}>
        The least that a page with these libraries shows at once
      </Text>
      <Svg width={100} height={40}>
        <Path d={`M0 20L${x(count + 5)} 0`} stroke="#123" />
      </Svg>
      <TextInput aria-label="Name" onChangeText={(text) => setValue('name', text)} />
      <Pressable role="button" onPress={more}>
        <Text>{`${count} ${schema.isValidSync(watch())} ${answer.data ?? ''} ${DateTime.now().toISODate()}`}</Text>
      </Pressable>
    </View>
  );
}
