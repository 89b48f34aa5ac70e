package api

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/library/documents"
)

// Player is what is kept of the player: what is played with, and how the neck is drawn.
type Player = document.Player

// KeptPlayer is the player as kept; version 0 was never kept.
type KeptPlayer struct {
	Version int       `json:"version" doc:"Given with a save, so that no other save is overwritten"`
	Saved   time.Time `json:"saved"`
	Player  Player    `json:"player"`
	// Mended is left out where nothing was.
	Mended []string `json:"mended,omitempty" doc:"What could not be taken as it is kept, and what stands in its place until it is saved"`
}

// SavePlayer replaces one version of the player.
type SavePlayer struct {
	Version int    `json:"version" minimum:"0"`
	Player  Player `json:"player"`
}

func (s *server) registerPlayer(api huma.API) {
	posts(api, "/api/compute/player", func(_ context.Context, in *body[Player]) (*body[Player], error) {
		if err := in.Body.Check(); err != nil {
			return nil, invalid("player", err)
		}
		return &body[Player]{in.Body}, nil
	}, described("player", "Check a player's neck and hands without keeping them"))
	getsTagged(api, "/api/player", func(ctx context.Context, _ *struct{}) (*tagged[KeptPlayer], error) {
		kept, err := documents.PlayerSettings.Read(ctx, s.library)
		return taggedPlayer(kept), err
	}, described("player", "Read the player's neck and hands"))
	huma.Put(api, "/api/player", func(ctx context.Context, in *replacingSetting[SavePlayer]) (*tagged[KeptPlayer], error) {
		save, err := in.save(in.Body.Version)
		if err != nil {
			return nil, err
		}
		kept, err := documents.PlayerSettings.Replace(ctx, s.library, save, in.Body.Player)
		if err != nil {
			return nil, saveProblem("player", "player", 0, err)
		}
		return taggedPlayer(kept), nil
	}, described("player", "Replace the player's neck and hands"))
	serveSettingVersions(api, s, "/api/player", "the player's neck and hands", documents.PlayerSettings, taggedPlayer)
}

func taggedPlayer(kept documents.KeptSetting[document.Player]) *tagged[KeptPlayer] {
	return &tagged[KeptPlayer]{ETag: etag(kept.Version), Body: KeptPlayer{Version: kept.Version, Saved: kept.Saved, Player: kept.Body, Mended: kept.Mended}}
}
