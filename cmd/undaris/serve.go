package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os/signal"
	"syscall"
	"time"

	"undaris/api"
	"undaris/demo"
	"undaris/library"
	"undaris/store"
	"undaris/web"
)

// graceful is how long requests in flight have to end when the server stops.
const graceful = 5 * time.Second

// serve runs the server until it is interrupted.
func serve(s settings, stdout, stderr io.Writer) error {
	level := slog.LevelInfo
	if s.verbose {
		level = slog.LevelDebug
	}
	log := slog.New(slog.NewTextHandler(stderr, &slog.HandlerOptions{Level: level}))

	// The port first: a second start must not touch the data of the first.
	listener, err := net.Listen("tcp", s.addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return fmt.Errorf("%s is already in use, perhaps by another undaris; give another port with --addr", s.addr)
	}
	if err != nil {
		return fmt.Errorf("listening on %s: %w", s.addr, err)
	}
	defer func() { _ = listener.Close() }()

	data, err := store.Open(s.data)
	if err != nil {
		return err
	}
	defer func() {
		if err := data.Close(); err != nil {
			log.Error("closing the data file", "error", err)
		}
	}()
	if err := fill(context.Background(), library.New(data, log), store.SoundsBeside(s.data), s.demo); err != nil {
		return fmt.Errorf("filling the new data file %s: %w", s.data, err)
	}

	if freed, err := library.New(data, log).ClearSounds(context.Background(), store.SoundsBeside(s.data), time.Now()); err != nil {
		log.Warn("sounds that nothing refers to could not be cleared", "error", err)
	} else if freed > 0 {
		log.Info("cleared sounds that nothing refers to", "bytes", freed)
	}
	server := &http.Server{
		Handler: api.New(api.Config{
			Store: data, Sounds: store.SoundsBeside(s.data), Web: web.Files(), Version: version, Demo: s.demo,
			Passphrase: s.passphrase, Loopback: s.loopback, Log: log,
		}),
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       30 * time.Second,
		IdleTimeout:       2 * time.Minute,
	}
	ctx, stop := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer stop()
	ended := make(chan error, 1)
	go func() { ended <- server.Serve(listener) }()
	fmt.Fprintf(stdout, "Undaris is at http://%s\n", listener.Addr())
	log.Info("serving", "addr", listener.Addr().String(), "data", s.data, "demo", s.demo, "version", version)

	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	log.Info("stopping")
	last, cancel := context.WithTimeout(context.Background(), graceful)
	defer cancel()
	return server.Shutdown(last)
}

// fill puts into a data file that has never held anything the licks that every
// library begins with and, for the demo, the tunes and a finished solo; all of it or nothing.
func fill(ctx context.Context, data *library.Library, sounds *store.Sounds, withTunes bool) error {
	isNew, err := data.IsNew(ctx)
	if err != nil || !isNew {
		return err
	}
	return data.Together(ctx, func(data *library.Library) error {
		if err := demo.Fill(ctx, data, withTunes); err != nil || !withTunes {
			return err
		}
		if err := demo.FillTakes(ctx, data, sounds, time.Now()); err != nil {
			return err
		}
		return demo.FillPractice(ctx, data, time.Now())
	})
}
