export const rails = ['12v', '5v', '3v3', 'standby', 'vcore', 'vmem', 'vsys'] as const
export type Rail = (typeof rails)[number]

export const railWords: Readonly<Record<Rail, string>> = {
  '12v': '12 V rail',
  '5v': '5 V rail',
  '3v3': '3.3 V rail',
  standby: 'standby rail',
  vcore: 'core rail',
  vmem: 'memory rail',
  vsys: 'system-agent rail',
}
