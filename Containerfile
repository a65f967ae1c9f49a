# Hearth Jar with the PostgreSQL that comes along; its data in /data. docs/deploy.md says the rest.
FROM node:20-bookworm-slim AS build
WORKDIR /hearth-jar
COPY . .
RUN ./hearth build

FROM node:20-bookworm-slim
RUN apt-get update && apt-get install -y --no-install-recommends postgresql && rm -rf /var/lib/apt/lists/*
WORKDIR /hearth-jar
COPY --from=build /hearth-jar .
ENV HEARTH_HOME=/data
VOLUME /data
CMD ["./hearth", "start", "--listen", "0.0.0.0"]
