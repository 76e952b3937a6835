package main

import (
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"shoal/internal/keeping"
)

// folderFlag is the data folder of a command.
func folderFlag(c *cobra.Command, data *string) {
	c.Flags().StringVar(data, "data", "data", "folder with the database and the audio")
}

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "backup FOLDER", Args: cobra.ExactArgs(1),
		Short: "Copy a data folder, which may be in use, into another one; again into the same copies only what is new",
		RunE: func(c *cobra.Command, args []string) error {
			private()
			got, err := keeping.Backup(c.Context(), data, args[0], progress(c.ErrOrStderr()))
			if err != nil {
				return err
			}
			return told(c.OutOrStdout(), got, "in "+args[0])
		},
	}
	folderFlag(c, &data)
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "restore BACKUP", Args: cobra.ExactArgs(1),
		Short: "Put a backup into a data folder; the database that is there is put aside, and no sound goes",
		RunE: func(c *cobra.Command, args []string) error {
			private()
			held, err := take(data)
			if err != nil {
				return err
			}
			defer held.free()
			got, aside, err := keeping.Restore(c.Context(), args[0], data, progress(c.ErrOrStderr()))
			if err != nil {
				return err
			}
			if aside != "" {
				fmt.Fprintln(c.OutOrStdout(), "What was there is now", aside)
			}
			return told(c.OutOrStdout(), got, "in "+data)
		},
	}
	folderFlag(c, &data)
	return c
}

// progress writes how far something is over itself.
func progress(out io.Writer) func(float64) {
	last := -1
	return func(part float64) {
		if now := int(part * 100); now != last {
			last = now
			fmt.Fprintf(out, "\r  %3d %%", now)
			if now == 100 {
				fmt.Fprintln(out)
			}
		}
	}
}

// told says what a copy came to, and is an error where something is missing.
func told(out io.Writer, c keeping.Copied, where string) error {
	fmt.Fprintf(out, "%d projects and %d sounds are %s; %d sounds (%.1f MB) are new there\n",
		c.Projects, c.Sounds, where, c.New, float64(c.Bytes)/1e6)
	if len(c.Missing) > 0 {
		return fmt.Errorf("%d sounds could not be copied; all else is there:\n  %s", len(c.Missing), strings.Join(c.Missing, "\n  "))
	}
	return nil
}

func doctorCommand() *cobra.Command {
	var data string
	var quick bool
	c := &cobra.Command{
		Use: "doctor", Args: cobra.NoArgs,
		Short: "Look through a data folder, which may be in use, and say what is wrong with it; nothing is changed",
		RunE: func(c *cobra.Command, _ []string) error {
			list, err := keeping.Doctor(c.Context(), data, inUse(data), !quick)
			wrong := 0
			for _, f := range list {
				if !f.Wrong {
					fmt.Fprintln(c.OutOrStdout(), "  ", f.Says)
					continue
				}
				wrong++
				fmt.Fprintln(c.OutOrStdout(), "! ", f.Says)
				fmt.Fprintln(c.OutOrStdout(), "   →", f.Do)
			}
			if err != nil {
				return err
			}
			if wrong > 0 {
				return exit(1)
			}
			fmt.Fprintln(c.OutOrStdout(), "Nothing is wrong.")
			return nil
		},
	}
	folderFlag(c, &data)
	c.Flags().BoolVar(&quick, "quick", false, "do not read every sound to compare it with its hash")
	return c
}

// inUse reports whether a process has the folder.
func inUse(data string) bool {
	held, err := tryLock(data)
	if err != nil {
		return errors.Is(err, errHeld)
	}
	held.free()
	return false
}
