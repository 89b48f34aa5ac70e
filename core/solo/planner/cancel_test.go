package planner_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/solo/planner"
	"undaris/core/solo/solotest"
)

// A plan that nobody waits for any more is not made.
func TestAPlanIsStopped(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	stop()
	_, err := planner.Plan(ctx, solotest.BluesInC())
	assert.ErrorIs(t, err, context.Canceled)
}
