package main

import (
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"shoal/internal/audiofile"
	"shoal/internal/store"
)

func sweepCommand() *cobra.Command {
	var data string
	var remove bool
	c := &cobra.Command{
		Use: "sweep", Args: cobra.NoArgs,
		Short: "Count the sounds of a data folder that no revision of any project can reach; with --remove they go for good",
		RunE:  func(c *cobra.Command, _ []string) error { return sweep(c.Context(), c.OutOrStdout(), data, remove) },
	}
	c.Flags().StringVar(&data, "data", "data", "folder with the database and the audio")
	c.Flags().BoolVar(&remove, "remove", false, "remove them")
	return c
}

func sweep(ctx context.Context, out io.Writer, data string, remove bool) error {
	if _, err := os.Stat(filepath.Join(data, "audio")); err != nil {
		return fmt.Errorf("%s is no data folder of Shoal's: it has no folder of audio", data)
	}
	held, err := take(data) // nobody works on it meanwhile
	if err != nil {
		return err
	}
	defer held.free()
	st, err := store.Open(ctx, data)
	if err != nil {
		return err
	}
	defer st.Close()
	folder, err := audiofile.NewFolder(filepath.Join(data, "audio"))
	if err != nil {
		return err
	}
	used, err := st.Mentioned(ctx)
	if err != nil {
		return err
	}
	list, err := folder.Unused(used)
	if err != nil {
		return err
	}
	bytes := int64(0)
	for _, x := range list {
		bytes += x.Bytes
		fmt.Fprintf(out, "%s  %.1f MB\n", x.Hash, float64(x.Bytes)/1e6)
	}
	fmt.Fprintf(out, "%d sounds, %.1f MB: nothing leads to them\n", len(list), float64(bytes)/1e6)
	if !remove {
		return nil
	}
	for _, x := range list {
		if err := folder.Remove(x.Hash); err != nil {
			return err
		}
		if err := st.ForgetAudio(ctx, x.Hash); err != nil {
			return fmt.Errorf("forget the sound %.12s: %w", x.Hash, err)
		}
	}
	fmt.Fprintln(out, "removed")
	return nil
}
