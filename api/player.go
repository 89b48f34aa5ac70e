package api

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
)

// Player is what is kept of the player: what is played with, and how the neck is
// drawn.
type Player struct {
	document.Hands
	LeftHanded  bool                  `json:"leftHanded,omitempty" doc:"The neck is drawn mirrored"`
	LowOnTop    bool                  `json:"lowOnTop,omitempty" doc:"The lowest string is drawn on top"`
	Instruments []document.Instrument `json:"instruments,omitempty" maxItems:"50" doc:"The player's own tunings and necks"`
}

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

const playerSetting = "player"

func (s *server) registerPlayer(api huma.API) {
	huma.Post(api, "/api/compute/player", func(_ context.Context, in *body[Player]) (*body[Player], error) {
		if err := in.Body.check(); err != nil {
			return nil, err
		}
		return &body[Player]{in.Body}, nil
	})
	huma.Get(api, "/api/player", func(context.Context, *struct{}) (*body[KeptPlayer], error) {
		kept, err := s.player()
		return &body[KeptPlayer]{kept}, err
	})
	huma.Put(api, "/api/player", func(_ context.Context, in *body[SavePlayer]) (*body[KeptPlayer], error) {
		if err := in.Body.Player.check(); err != nil {
			return nil, err
		}
		if err := s.setAside(playerSetting); err != nil {
			return nil, err
		}
		kept, err := s.store.KeepSetting(playerSetting, in.Body.Version, pack(in.Body.Player))
		if err != nil {
			return nil, storeProblem("player", 0, err)
		}
		return &body[KeptPlayer]{KeptPlayer{Version: kept.Version, Saved: kept.UpdatedAt, Player: in.Body.Player}}, nil
	})
}

func (s *server) player() (KeptPlayer, error) {
	setting, err := s.store.Setting(playerSetting)
	kept := KeptPlayer{Version: setting.Version, Saved: setting.UpdatedAt}
	if err != nil || setting.Version == 0 {
		return kept, err
	}
	if err := json.Unmarshal(setting.Body, &kept.Player); err != nil {
		kept.Player = Player{}
		kept.Mended = []string{fmt.Sprintf("your neck and hands cannot be read (%s); a guitar in standard tuning stands in their place, and what was kept is set aside with the next save", err)}
		return kept, nil
	}
	kept.Player, kept.Mended = kept.Player.mended()
	return kept, nil
}

// mended is the player with what no rule allows brought to the nearest that is.
func (p Player) mended() (Player, []string) {
	if p.check() == nil {
		return p, nil
	}
	hands, said := p.Hands.Mended()
	p.Hands = hands
	own := []document.Instrument(nil)
	for _, i := range p.Instruments {
		mended, changed := document.Hands{Instrument: &i}.Mended()
		said = append(said, changed...)
		if mended.Instrument != nil {
			own = append(own, *mended.Instrument)
		}
	}
	p.Instruments = own
	return p, said
}

// setAside keeps a setting that cannot be read under another name, before a save takes
// its place.
func (s *server) setAside(name string) error {
	before, err := s.store.Setting(name)
	if err != nil || before.Version == 0 || json.Valid(before.Body) {
		return err
	}
	aside := fmt.Sprintf("%s, version %d, not readable", name, before.Version)
	known, err := s.store.Setting(aside)
	if err != nil || known.Version > 0 {
		return err
	}
	_, err = s.store.KeepSetting(aside, 0, before.Body)
	return err
}

func (p Player) check() error {
	if _, _, _, err := p.Hands.Core(0); err != nil {
		return invalid("player", err)
	}
	for n, own := range p.Instruments {
		if _, err := own.Core(); err != nil {
			return invalid(fmt.Sprintf("player.instruments[%d]", n), err)
		}
	}
	return nil
}
