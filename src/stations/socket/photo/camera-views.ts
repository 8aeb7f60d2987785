/** From where the simulated camera looks: straight above, from the near side, or on one quarter of the field. */
export const cameraViews = ['above', 'near side', 'far left', 'far right', 'near right', 'near left'] as const
export type CameraView = (typeof cameraViews)[number]

/** Tilt of the picture from the near side, and the side it is taken from, degrees. */
export const SIDE_TILT = { tiltDeg: 35, towardsDeg: 270 } as const
