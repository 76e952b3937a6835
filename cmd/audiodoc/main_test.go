package main

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
)

func TestTheDocumentIsThatOfTheCode(t *testing.T) {
	want, err := document("../../internal/effect")
	require.NoError(t, err)
	got, err := os.ReadFile("../../docs/audio.md")
	require.NoError(t, err)
	require.True(t, want == string(got), "docs/audio.md is not up to date: run make docs")
}

func TestEveryEffectSaysWhereItComesFrom(t *testing.T) {
	comments, err := readComments("../../internal/effect")
	require.NoError(t, err)
	for _, k := range effect.Kinds() {
		require.Greater(t, len(comments[k.ID]), 60, k.ID)
	}
}
