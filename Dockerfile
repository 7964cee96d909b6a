# Builds from the lock file alone; what it needs of the registry is fetched once, by `npm ci`.
FROM node:20-bookworm-slim AS build
WORKDIR /app
# better-sqlite3 compiles where its ready-made part cannot be fetched.
RUN apt-get update && apt-get install -y --no-install-recommends python3 make g++ && rm -rf /var/lib/apt/lists/*
COPY package.json package-lock.json .npmrc ./
COPY core/package.json core/
COPY server/package.json server/
COPY web/package.json web/
COPY e2e/package.json e2e/
RUN npm ci
COPY . .
RUN npm run build && npm prune --omit=dev

FROM node:20-bookworm-slim
WORKDIR /app
ENV NODE_ENV=production HOST=0.0.0.0 NEEDLECASE_DB=/data/needlecase.sqlite
COPY --from=build /app/node_modules node_modules
COPY --from=build /app/package.json ./
COPY --from=build /app/server/package.json server/
COPY --from=build /app/server/dist server/dist
COPY --from=build /app/server/migrations server/migrations
COPY --from=build /app/web/dist web/dist
RUN mkdir /data && chown node /data
USER node
VOLUME /data
EXPOSE 4310 4311
CMD ["node", "server/dist/main.js"]
