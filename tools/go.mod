module allcoats/tools

go 1.26.0

tool honnef.co/go/tools/cmd/staticcheck

require (
	github.com/andybalholm/brotli v1.2.6
	github.com/nishanths/exhaustive v0.17.1
	github.com/ringsaturn/tzf v1.0.2
	github.com/ringsaturn/tzf-rel-lite v0.0.2025-b2
	golang.org/x/tools v0.52.0
	google.golang.org/protobuf v1.36.9
)

require (
	github.com/BurntSushi/toml v1.4.1-0.20240526193622-a339e1f7089c // indirect
	github.com/mitchellh/mapstructure v1.5.0 // indirect
	github.com/paulmach/orb v0.12.0 // indirect
	github.com/tidwall/geoindex v1.7.0 // indirect
	github.com/tidwall/geojson v1.4.5 // indirect
	github.com/tidwall/rtree v1.10.0 // indirect
	github.com/twpayne/go-polyline v1.1.1 // indirect
	go.mongodb.org/mongo-driver v1.11.4 // indirect
	golang.org/x/exp/typeparams v0.0.0-20231108232855-2478ac86f678 // indirect
	golang.org/x/mod v0.42.0 // indirect
	golang.org/x/sync v0.24.0 // indirect
	honnef.co/go/tools v0.8.2 // indirect
)
