/** What a picker offers to bring in. */
export const MEDIA_FILES =
  'video/*,audio/*,image/png,image/jpeg,image/webp,image/avif,image/svg+xml,.ttf,.otf,.woff,.woff2,.mkv,.mov,.flac,.opus,.ogg,.wav'
