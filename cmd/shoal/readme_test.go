package main

import (
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/passage"
	"shoal/internal/sounding"
)

// What the README counts is what there is.
func TestTheReadmeCountsRight(t *testing.T) {
	b, err := os.ReadFile("../../README.md")
	require.NoError(t, err)
	for _, says := range []string{
		fmt.Sprintf("- %d effects,", len(effect.Kinds())),
		fmt.Sprintf("%d kinds place", len(passage.Kinds())),
		fmt.Sprintf("- Soundings (`Z`): %d things", sounding.Count()),
	} {
		require.Contains(t, string(b), says)
	}
}
