import { useEffect, useState } from 'react';
import { Text } from 'react-native';
export default function Home() {
  const [s, setS] = useState('hello');
  useEffect(() => {
    const w = new Worker(new URL('../src/workers/x.worker', window.location.href));
    w.onmessage = (e) => setS(String(e.data));
    w.postMessage(1);
    import('three').then((t) => console.log(t.REVISION));
  }, []);
  return <Text>{s}</Text>;
}
