package api

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"net/http"
	"strconv"
	"time"

	"github.com/boombuler/barcode/qr"
	"github.com/danielgtaylor/huma/v2"
)

// Access says how other devices in the house reach this machine, and which were let in.
type Access struct {
	Passphrase bool     `json:"passphrase" doc:"One is asked for"`
	TLS        bool     `json:"tls" doc:"It is reached over TLS"`
	Addresses  []string `json:"addresses" doc:"Where devices in the house reach it, the likeliest first; none on this machine alone"`
	// Picture is left out where there is no address.
	Picture *QRPicture `json:"picture,omitempty" doc:"The first address as a QR code"`
	Devices []Device   `json:"devices" doc:"Devices that were let in, the latest first"`
}

// QRPicture is a square picture of dark and light modules, as a path to be drawn, one unit a module.
type QRPicture struct {
	Size int    `json:"size" doc:"How many modules it is wide, its quiet margin too"`
	Path string `json:"path" doc:"The dark modules, as an SVG path"`
}

// Device is one that was let in.
type Device struct {
	ID      string    `json:"id"`
	About   string    `json:"about" doc:"What the device says it is"`
	Address string    `json:"address"`
	Began   time.Time `json:"began"`
	Used    time.Time `json:"used"`
	Here    bool      `json:"here" doc:"It is the device that asks"`
}

type withCookie struct {
	TLSToken   http.Cookie `cookie:"__Host-undaris"`
	PlainToken http.Cookie `cookie:"undaris"`
}

func (s *server) registerAccess(api huma.API) {
	gets(api, "/api/access", func(_ context.Context, in *withCookie) (*body[Access], error) {
		view := Access{Passphrase: s.access != nil, TLS: s.tls, Addresses: append([]string{}, s.addresses...), Devices: []Device{}}
		if len(s.addresses) > 0 {
			picture, err := qrPicture(s.addresses[0])
			if err != nil {
				return nil, err
			}
			view.Picture = &picture
		}
		if s.access == nil {
			return &body[Access]{view}, nil
		}
		token := in.TLSToken.Value
		if token == "" {
			token = in.PlainToken.Value
		}
		here, _ := s.access.SessionOf(token)
		for _, one := range s.access.Sessions() {
			view.Devices = append(view.Devices, Device{ID: one.ID, About: one.About, Address: one.Address, Began: one.Began, Used: one.Used, Here: one.ID == here})
		}
		return &body[Access]{view}, nil
	})
	huma.Delete(api, "/api/access/{id}", func(_ context.Context, in *byTextID) (*struct{}, error) {
		if s.access == nil {
			return nil, nil
		}
		return nil, s.access.End(in.ID)
	})
}

// QRModules are the modules of an address as a QR code: rows of dark (true) and light ones, without a margin.
func QRModules(address string) ([][]bool, error) {
	code, err := qr.Encode(address, qr.M, qr.Auto)
	if err != nil {
		return nil, err
	}
	size := code.Bounds()
	dark := make([][]bool, size.Dy())
	for y := range dark {
		dark[y] = make([]bool, size.Dx())
		for x := range dark[y] {
			brightness, _, _, _ := code.At(size.Min.X+x, size.Min.Y+y).RGBA()
			dark[y][x] = brightness == 0
		}
	}
	return dark, nil
}

// quietModules is the margin of a QR code, as ISO/IEC 18004 asks.
const quietModules = 4

func qrPicture(address string) (QRPicture, error) {
	dark, err := QRModules(address)
	path := bytes.Buffer{}
	for y, row := range dark {
		for x, on := range row {
			if on {
				fmt.Fprintf(&path, "M%d %dh1v1h-1z", x+quietModules, y+quietModules)
			}
		}
	}
	return QRPicture{Size: len(dark) + 2*quietModules, Path: path.String()}, err
}

func wholeSeconds(d time.Duration) string { return strconv.Itoa(int(math.Ceil(d.Seconds()))) }
