# Corvel, built in one stage and run in another without what only the build needs.
FROM node:20-slim AS build
WORKDIR /corvel
COPY package.json package-lock.json ./
RUN npm ci
COPY . .
RUN npm run build && npm prune --omit=dev

FROM node:20-slim
WORKDIR /corvel
COPY --from=build /corvel/package.json ./
COPY --from=build /corvel/node_modules ./node_modules
COPY --from=build /corvel/build ./build
COPY --from=build /corvel/scripts ./scripts
ENV HOST=0.0.0.0 PORT=4173 CORVEL_DATA=/data MALLOC_ARENA_MAX=2
RUN mkdir /data && chown node:node /data
VOLUME /data
EXPOSE 4173
USER node
CMD ["node", "scripts/server.js"]
