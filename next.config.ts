import type { NextConfig } from 'next'

const config: NextConfig = {
  distDir: process.env.NEXT_DIST_DIR ?? '.next',
  poweredByHeader: false,
  reactStrictMode: true,
  // The tests check the types; a shop that starts the application need not.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['@node-rs/argon2', 'pg', 'sharp', 'piscina', 'tsx'],
}

export default config
