/** Every kind of file that comes into a job, as a file dialog needs it. */
export const ACCEPTED = 'image/*,video/*,.tif,.tiff,.heic,.heif,.pdf,.dxf,.svg,.json,.geojson,.jgw,.pgw,.tfw,.wld';
